import globals from 'globals';
import tseslint from 'typescript-eslint';
import vue from 'eslint-plugin-vue';
import { rooms } from './core/rooms.js';

/** Imports point one way: web → core ← server. */
function neverFrom(patterns, message, ...more) {
  return { 'no-restricted-imports': ['error', { patterns: [{ group: patterns, message }, ...more] }] };
}

const outsideCore = [
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
];
const anywhere = 'The core runs anywhere, and knows neither interface nor server.';

/** A room of the core imports only from rooms before it; the order is core/rooms.js. */
const roomOrder = Object.keys(rooms)
  .slice(0, -1)
  .map((room, at) => ({
    files: [`core/src/${room}/**/*.ts`],
    rules: neverFrom(outsideCore, anywhere, {
      // A room has at most one folder within it.
      group: Object.keys(rooms)
        .slice(at + 1)
        .flatMap((later) => [`../${later}`, `../${later}/*`, `../../${later}/*`]),
      message: `“${room}” comes before it in the order of rooms (core/rooms.js).`,
    }),
  }));

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
      ...neverFrom(outsideCore, anywhere),
      'no-restricted-syntax': ['error', ...noClock],
      'no-restricted-properties': ['error', ...noUnseeded],
    },
  },
  ...roomOrder,
  {
    files: ['core/src/**/*.test.ts'],
    rules: { 'no-restricted-imports': 'off' },
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
