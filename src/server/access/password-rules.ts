/** What a password must be (NIST SP 800-63B: length counts, classes of letters do not). */
const LEAST = 10;
const OFTEN =
  /^(?:password|passwort|wachtwoord|letmein|qwert[yz]uiop|azertyuiop|welcome|willkommen|welkom|iloveyou|administrator|admin|abcdefghij?)?[\d!?.]*$/i;

/** Why a password is too weak; undefined when it will do. */
export function weakness(password: string, ofThem: readonly string[]): string | undefined {
  if (password.length < LEAST) return `a password has at least ${LEAST} characters: three or four words do well`;
  if (OFTEN.test(password)) return 'this is one of the first passwords anybody tries';
  if (new Set(password).size < 5) return 'that is almost the same character again and again';
  const plain = password.toLowerCase();
  const own = ofThem
    .flatMap((text) => text.toLowerCase().split(/[^\p{L}\p{N}]+/u))
    .filter((word) => word.length > 3)
    .find((word) => plain.includes(word) && plain.length - word.length < LEAST - 4);
  return own === undefined ? undefined : `without “${own}” little is left of it, and that is known of you`;
}
