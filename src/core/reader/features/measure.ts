/** What is known of one candidate, by name, 0 to 1: none of it knows a trade. `docs/questions.md` says what each means. */
export type Features = Readonly<Record<string, number>>;

export const yes = (found: boolean): number => (found ? 1 : 0);
