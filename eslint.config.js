import globals from 'globals';
import tseslint from 'typescript-eslint';
import vue from 'eslint-plugin-vue';

/** Imports point one way: web → core ← server. */
function neverFrom(patterns, message) {
  return { 'no-restricted-imports': ['error', { patterns: [{ group: patterns, message }] }] };
}

const noClock = [
  {
    selector: "NewExpression[callee.name='Date'][arguments.length=0]",
    message: 'The core has no clock: take the date as an argument.',
  },
  {
    selector: "CallExpression[callee.name='Date']",
    message: 'The core has no clock: take the date as an argument.',
  },
  {
    selector: "MemberExpression[object.name='Temporal'][property.name='Now']",
    message: 'The core has no clock.',
  },
];
const noUnseeded = [
  { object: 'Math', property: 'random', message: 'Use a seeded source: seededRandom(seed).' },
  { object: 'Date', property: 'now', message: 'The core has no clock: take the date as an argument.' },
  { object: 'performance', property: 'now', message: 'The core has no clock.' },
  { object: 'crypto', property: 'getRandomValues', message: 'Use a seeded source: seededRandom(seed).' },
  { object: 'crypto', property: 'randomUUID', message: 'Ids come from whoever calls.' },
];

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '.kauri/**',
      'test-results/**',
      'server/src/db/migrations/**',
    ],
  },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser } },
  },
  {
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrorsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/no-explicit-any': 'error',
      'no-console': 'off',
      // Layout is the formatter's.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/attributes-order': 'off',
      'vue/require-default-prop': 'off',
      'vue/no-v-html': 'error',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...neverFrom(
        [
          'node:*',
          'vue*',
          'pinia',
          'express*',
          'pg',
          'drizzle*',
          '@kauri/*',
          '**/web/**',
          '**/server/**',
          'echarts*',
        ],
        'The core runs anywhere, and knows neither interface nor server.',
      ),
      'no-restricted-syntax': ['error', ...noClock],
      'no-restricted-properties': ['error', ...noUnseeded],
    },
  },
  {
    files: ['server/**/*.ts'],
    rules: neverFrom(
      ['vue*', 'pinia', '**/web/**', '@kauri/web*'],
      'The server knows nothing of the interface.',
    ),
  },
  {
    files: ['web/**/*.{ts,vue}'],
    rules: neverFrom(
      ['express*', 'pg', 'drizzle*', '**/server/**', '@kauri/server*', 'node:*'],
      'The interface knows the contract, not the server.',
    ),
  },
);
