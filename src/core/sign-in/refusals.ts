/** Why somebody was not let in after they signed in elsewhere. Only the key travels in an address: nobody can write words into ours. */
export const REFUSALS = {
  late: 'That took longer than ten minutes, or began in another browser. Begin again.',
  gone: 'That sign-in service is not used here any more.',
  declined: 'The other side did not let you in, or you left it.',
  unproven: 'The other side does not say that your e-mail address is yours. Come in by your password, or ask its administrator.',
  nobody: 'Nobody here has that e-mail address. Ask an owner to invite you.',
  away: 'The other side could not be reached. Try again, or come in by your password.',
} as const;
export type RefusalKey = keyof typeof REFUSALS;

export const refusalText = (key: string | undefined): string | undefined =>
  key !== undefined && Object.hasOwn(REFUSALS, key) ? REFUSALS[key as RefusalKey] : undefined;
