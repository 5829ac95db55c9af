/** Languages that texts and answers are written in, as they are called here. */
export const LANGUAGES: readonly (readonly [code: string, name: string])[] = [
  ['en', 'English'],
  ['de', 'German'],
  ['nl', 'Dutch'],
  ['fr', 'French'],
  ['es', 'Spanish'],
  ['it', 'Italian'],
  ['pt', 'Portuguese'],
  ['pl', 'Polish'],
  ['da', 'Danish'],
  ['sv', 'Swedish'],
];
export const languageName = (code: string): string => LANGUAGES.find(([each]) => each === code)?.[1] ?? code;
