import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

/** What a folder of core may not import: everything on the floors above it. */
const FLOORS = ['measure', 'plane', 'supplies', 'sheet', 'linkage'];
const floorRules = FLOORS.map((floor, i) => ({
  files: [`core/src/${floor}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            group: [...FLOORS.slice(i + 1), 'mechanism', 'card', 'check', 'plan', 'format', 'trial'].map((above) => `**/${above}/**`),
            message: 'A floor uses only those below it.',
          },
        ],
      },
    ],
  },
}));

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '**/.angular/**', '**/test-results/**', '**/playwright-report/**', '.build/**'] },
  {
    files: ['**/*.ts'],
    extends: [...tseslint.configs.recommended, ...tseslint.configs.stylistic],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-definitions': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      eqeqeq: 'error',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'performance', 'localStorage', 'fetch'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Pass clocks in.' },
        { object: 'Math', property: 'random', message: 'Pass seeds in.' },
      ],
    },
  },
  ...floorRules,
  {
    files: ['core/src/mechanism/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['**/check/**', '**/card/**', '**/format/**', '**/plan/**', '**/trial/**'],
              message: 'A mechanism knows no checks, cards or formats.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['core/src/check/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['**/mechanism/**', '**/format/**', '**/plan/**', '**/trial/**'],
              message: 'A check does not know which mechanism it reads.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'dip', style: 'kebab-case' }],
    },
  },
  { files: ['web/src/**/*.html'], extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility] },
);
