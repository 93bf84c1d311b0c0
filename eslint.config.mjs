import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

import { forbiddenTo, ROOMS } from './scripts/floors.mjs';

const floorRules = ROOMS.map(({ room }) => ({
  files: [`core/src/${room}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [{ group: forbiddenTo(room), message: 'A room uses only those below it: see scripts/floors.mjs.' }] },
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
      '@typescript-eslint/no-unused-vars': [
        'error',
        { varsIgnorePattern: '^_', argsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
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
    files: ['web/**/*.ts', 'cli/**/*.ts', 'server/**/*.ts', 'e2e/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['@diptychon/core/*', '!@diptychon/core/files', '!@diptychon/core/records', '**/core/src/**', '**/core/dist/**'],
              message: 'The core is used by its front door: @diptychon/core, @diptychon/core/records and @diptychon/core/files.',
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
      // State is in signals: a component is looked at again only when what it reads has changed.
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'dip', style: 'kebab-case' }],
    },
  },
  { files: ['web/src/**/*.html'], extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility] },
);
