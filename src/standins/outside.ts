import fs from 'node:fs';
import path from 'node:path';
import { z } from 'zod';

const words = z.array(z.string().min(1)).min(1);
const outsideSchema = z.object({
  /** accounts of the simulated mailboxes, with their passwords */
  mailboxes: z.record(z.string(), z.string()),
  /** the sign-in service, what it knows this installation by, and its accounts with their names */
  signIn: z.object({ issuer: z.url(), clientId: z.string(), secret: z.string(), accounts: z.record(z.string(), z.string()) }).optional(),
  /** what name servers say of its names */
  names: z
    .record(
      z.string(),
      z.object({ txt: z.array(z.string()).optional(), a: z.array(z.string()).optional(), mx: z.array(z.string()).optional() }),
    )
    .default({}),
  calendar: z.object({ user: z.string(), password: z.string() }),
  /** what recipients of each kind answer */
  answers: z.object({ yes: words, price: words, away: words, unsubscribe: words, later: words, elsewhere: words }),
});
export type OutsideOfWorld = z.infer<typeof outsideSchema>;

/** What the outside of a world is besides its sites, sources, mails and calendars: `outside.json` in its folder. */
export function outsideOf(world: string): OutsideOfWorld {
  return outsideSchema.parse(JSON.parse(fs.readFileSync(path.join(world, 'outside.json'), 'utf8')));
}
