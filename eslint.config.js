import tseslint from 'typescript-eslint';
import astro from 'eslint-plugin-astro';
import reactHooks from 'eslint-plugin-react-hooks';

/** Rooms from the lowest up: a room may import what stands before it in its own list, nothing else. */
const rooms = {
  core: ['core'],
  store: ['core', 'store'],
  devices: ['core/units', 'devices'],
  demo: ['core', 'store', 'demo'],
  server: ['core', 'store', 'server'],
  web: ['core', 'store', 'server', 'web'],
  e2e: [
    'core',
    'store',
    'server',
    'web/schemas',
    'web/endpoints',
    'web/http',
    'web/pageData',
    'devices',
    'commands',
    'demo',
    'benchmarks',
    'e2e',
  ],
  commands: [
    'core',
    'store',
    'server/people',
    'server/network',
    'web/schemas',
    'demo',
    'devices',
    'commands',
  ],
  benchmarks: ['core', 'store', 'web', 'commands', 'benchmarks'],
};

/** The rooms of core, lowest first: a room imports only from rooms before it. The drawing stands in README.md. */
export const CORE_ROOMS = [
  'errors',
  'random',
  'collections',
  'people',
  'time',
  'units',
  'geometry',
  'stack',
  'threshold',
  'knowledge',
  'wear',
  'exposure',
  'station',
  'sharing',
  'setting',
  'dialIn',
  'answer',
  'book',
  'lookup',
  'faults',
  'prep',
  'drawing',
  'checks',
  'sheet',
  'perforation',
  'passes',
  'program',
  'run',
  'protocol',
  'artwork',
  'job',
  'practice',
  'words',
];

const relative = { regex: '^\\.{1,2}/', message: 'Import through #room/..., never by a relative path.' };

function forbidOtherRooms(allowed) {
  return {
    regex: `^#(?!(?:${allowed.join('|')})/)`,
    message: `This room may import only from: ${allowed.map((name) => `#${name}/...`).join(', ')}.`,
  };
}

const roomRules = Object.entries(rooms).map(([room, allowed]) => ({
  files: [`${room}/**/*.{ts,tsx,astro}`],
  rules: { 'no-restricted-imports': ['error', { patterns: [relative, forbidOtherRooms(allowed)] }] },
}));

const noNode = { regex: '^node:', message: 'core is pure: no Node modules.' };
const coreRoomRules = CORE_ROOMS.map((room, index) => ({
  files: [`core/${room}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          relative,
          forbidOtherRooms(CORE_ROOMS.slice(0, index + 1).map((name) => `core/${name}`)),
          noNode,
        ],
      },
    ],
  },
}));

const purity = {
  files: ['core/**/*.ts'],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-properties': [
      'error',
      { object: 'Math', property: 'random', message: 'Randomness is passed in.' },
      { object: 'Date', property: 'now', message: 'The time is passed in.' },
    ],
    'no-restricted-syntax': [
      'error',
      {
        selector: "NewExpression[callee.name='Date'][arguments.length=0]",
        message: 'The time is passed in.',
      },
    ],
    'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'performance'],
  },
};

export default tseslint.config(
  { ignores: ['dist', 'node_modules', '.astro', '.feather'] },
  ...tseslint.configs.strict,
  ...astro.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      '@typescript-eslint/consistent-type-imports': 'error',
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      'no-console': 'error',
    },
  },
  ...roomRules,
  ...coreRoomRules,
  purity,
  {
    files: ['web/env.d.ts'],
    rules: {
      '@typescript-eslint/consistent-type-imports': 'off',
      '@typescript-eslint/triple-slash-reference': 'off',
    },
  },
  {
    files: ['commands/**/*.ts', 'benchmarks/**/*.ts', 'e2e/support/**/*.ts'],
    rules: { 'no-console': 'off' },
  },
  {
    files: ['**/*.test.ts', '**/*.test.tsx', 'e2e/support/torment.ts'],
    rules: { 'max-lines-per-function': 'off', '@typescript-eslint/no-non-null-assertion': 'off' },
  },
);
