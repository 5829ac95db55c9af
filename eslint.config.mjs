// Rules that no import graph can see; layers are in lint/layers.cjs, layout is Prettier's.
import regexp from 'eslint-plugin-regexp';
import tseslint from 'typescript-eslint';

/** Time, chance and timers are handed in; only the places that own them may touch the globals. */
const CLOCK = [
  { selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']", message: 'time is handed in: ask the clock port' },
  { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'time is handed in: ask the clock port' },
  { selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']", message: 'chance is handed in' },
  {
    selector: 'CallExpression[callee.name=/^(setTimeout|setInterval|setImmediate)$/]',
    message: 'timers belong to adapters, the worker loop, streams to open pages and the interface',
  },
];
const STYLE_ATTRIBUTE = {
  selector: "JSXAttribute[name.name='style']",
  message: 'The policy of pages allows no style in an attribute: css={placed({ … })} of src/ui/kit/placed.ts.',
};
const ENVIRONMENT = {
  selector: "MemberExpression[object.name='process'][property.name='env']",
  message: 'config.ts is the one reader of the environment',
};
const ENUM = { selector: 'TSEnumDeclaration', message: 'a union of words instead of an enum' };

export default tseslint.config(
  {
    ignores: [
      'node_modules',
      '.next',
      '.local',
      'dist',
      'next-env.d.ts',
      '**/*.gen.ts',
      '**/*.gen.terms.ts',
      'lint/broken',
      'scripts',
      '**/*.mjs',
      '**/*.cjs',
    ],
  },
  tseslint.configs.strictTypeChecked,
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true, allowBoolean: true }],
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/no-meaningless-void-operator': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrorsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unnecessary-condition': 'off',
      '@typescript-eslint/unified-signatures': 'off',
      '@typescript-eslint/no-misused-spread': 'off',
      '@typescript-eslint/no-unnecessary-type-parameters': 'off',
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      'no-console': 'error',
      'max-lines': ['error', { max: 400 }],
      'no-restricted-syntax': ['error', ENUM],
    },
  },
  // A function is one idea: sixty lines of work, a hundred and twenty of what is seen.
  {
    files: ['src/core/**/*.ts', 'src/server/**/*.ts', 'src/api/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 60 }] },
  },
  {
    files: ['src/ui/**/*.ts', 'src/ui/**/*.tsx', 'src/app/**/*.tsx'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 120 }] },
  },
  {
    files: ['src/ui/**/*.tsx', 'src/app/**/*.tsx'],
    rules: { 'no-restricted-syntax': ['error', ENUM, STYLE_ATTRIBUTE] },
  },
  // What comes from outside is read in time linear to its length: no expression may look at a stretch of text again and again.
  {
    files: ['src/**/*.ts', 'src/**/*.tsx'],
    ignores: ['**/*.test.ts', '**/*.test.tsx', 'src/testing/**'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential', ignorePartial: false }],
    },
  },
  {
    files: ['src/core/**/*.ts'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      'no-restricted-syntax': ['error', ENUM, ENVIRONMENT, ...CLOCK],
    },
  },
  { files: ['src/server/**/*.ts', 'src/api/**/*.ts'], rules: { 'no-restricted-syntax': ['error', ENUM, ENVIRONMENT, ...CLOCK] } },
  // The stream to an open page beats, so that both ends know that the line is alive.
  {
    files: ['src/server/adapters/**/*.ts', 'src/server/worker/**/*.ts', 'src/server/http/live.ts'],
    rules: { 'no-restricted-syntax': ['error', ENUM, ENVIRONMENT] },
  },
  { files: ['src/server/config.ts', 'src/server/wire/**/*.ts'], rules: { 'no-restricted-syntax': ['error', ENUM] } },
  {
    files: ['**/*.test.ts', '**/*.test.tsx', 'src/testing/**', 'e2e/**', 'bench/**'],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-explicit-any': 'off',
      'no-restricted-syntax': ['error', ENUM],
    },
  },
  { files: ['bench/**'], rules: { 'no-console': 'off' } },
);
