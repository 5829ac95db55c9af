import { z } from 'zod';
import { op } from './op';
import * as s from './schemas';

const factor = z.object({
  since: s.instant.nullable().describe('null: there is none, or it has not shown a code yet'),
  recoveryLeft: z.int().describe('recovery codes that were not used yet'),
  required: z.boolean().describe('everybody here needs one'),
});
const code = z.object({ code: z.string().min(6).max(40).describe('of this moment, or a recovery code') });
const hour = z.string().regex(/^(?:[01]\d|2[0-3]):[0-5]\d$/, 'an hour is written 08:00');
const told = z.object({
  byMail: z.boolean(),
  webhook: z.string().nullable().describe('a webhook of the workspace that is posted to'),
  from: z.string().describe('08:00, on working days in the workspace’s zone'),
  to: z.string(),
  webhooks: z.array(z.string()).describe('those there are'),
  zone: z.string(),
});
const renewed = z.object({ codes: z.array(z.string()).describe('each opens the door once; shown this once'), view: factor });

/** One's own account: the second factor, and where one is told. By hand only: a program has no phone. */
export const ACCOUNT_OPERATIONS = {
  getTelling: op({
    method: 'GET',
    path: '/account/telling',
    summary: 'Where one is told that something waits.',
    needs: 'look',
    answer: told,
  }),
  setTelling: op({
    method: 'PUT',
    path: '/account/telling',
    changes: [],
    summary: 'Choose where and when one is told that something waits.',
    needs: 'look',
    body: z.object({ byMail: z.boolean(), webhook: z.string().max(80).nullable(), from: hour, to: hour }),
    answer: told,
  }),
  getSecondFactor: op({
    method: 'GET',
    path: '/account/second-factor',
    summary: 'One’s own second factor.',
    needs: 'look',
    answer: factor,
  }),
  beginSecondFactor: op({
    method: 'POST',
    path: '/account/second-factor/begin',
    changes: [],
    summary: 'A new secret for a phone (RFC 6238). Nothing is asked for it until a code of it has been shown.',
    needs: 'look',
    answer: z.object({ picture: z.string().describe('SVG of the code to photograph'), key: z.string().describe('the same in letters') }),
  }),
  confirmSecondFactor: op({
    method: 'POST',
    path: '/account/second-factor/confirm',
    changes: ['settings'],
    summary: 'Take it into use with its first code.',
    needs: 'look',
    body: code,
    answer: renewed,
  }),
  renewRecoveryCodes: op({
    method: 'POST',
    path: '/account/second-factor/recovery-codes',
    changes: [],
    summary: 'New recovery codes; those of before are void.',
    needs: 'look',
    body: code,
    answer: renewed,
  }),
  endSecondFactor: op({
    method: 'POST',
    path: '/account/second-factor/end',
    changes: ['settings'],
    summary: 'Switch it off.',
    needs: 'look',
    body: code,
    answer: factor,
  }),
  endFactorOf: op({
    method: 'POST',
    path: '/people-here/{id}/second-factor/end',
    changes: ['settings'],
    summary: 'Take away the second factor of somebody whose phone and codes are lost.',
    needs: 'keep secrets',
    answer: s.okSchema,
  }),
  requireSecondFactor: op({
    method: 'PUT',
    path: '/account/second-factor/required',
    changes: ['settings'],
    summary: 'Whether everybody needs one.',
    needs: 'keep secrets',
    body: z.object({ required: z.boolean() }),
    answer: factor,
  }),
} as const;
