import { z } from 'zod';
import { signInServiceSchema } from '../core/sign-in';
import { op, type View } from './op';
import * as s from './schemas';

const view = z.object({
  service: signInServiceSchema,
  hasSecret: z.boolean().describe('a secret is kept, sealed'),
  usedBy: z.array(z.string()).describe('mailboxes and sources that sign in by it'),
  accounts: z
    .array(
      z.object({
        id: z.string(),
        account: z.string().describe('the mailbox that was signed in'),
        since: s.instant,
        problem: z.string().nullable().describe('null: it opens'),
      }),
    )
    .describe('mailboxes that were signed in there'),
});
export type SignInServiceView = View<typeof view>;
const list = z.object({ items: z.array(view), backTo: z.string().describe('where services send people back to: it is typed there') });

/** Sign-in services, by which people come in and mailboxes open. */
export const SIGN_IN_OPERATIONS = {
  listSignInServices: op({
    method: 'GET',
    path: '/sign-in-services',
    summary: 'Sign-in services (OpenID Connect) that are described here, and the mailboxes signed in at each.',
    needs: 'look',
    answer: list,
  }),
  keepSignInService: op({
    method: 'PUT',
    path: '/sign-in-services',
    changes: ['settings'],
    summary: 'Describe a sign-in service, or change it. Its own description is read before it is kept.',
    needs: 'keep secrets',
    body: z.object({
      service: signInServiceSchema,
      secret: z.string().max(2_000).optional().describe('left out, the one that is kept stays; empty: none'),
    }),
    answer: list,
  }),
  removeSignInService: op({
    method: 'POST',
    path: '/sign-in-services/remove',
    changes: ['settings'],
    summary: 'Remove a sign-in service that no mailbox signs in by.',
    needs: 'keep secrets',
    body: z.object({ name: z.string().max(60) }),
    answer: list,
  }),
  signMailboxOut: op({
    method: 'POST',
    path: '/sign-in-services/accounts/{id}/end',
    changes: ['settings'],
    summary: 'Forget what a mailbox was given: it opens nothing here any more.',
    needs: 'keep secrets',
    answer: list,
  }),
} as const;
