const { defineConfig, globalIgnores } = require('eslint/config');
const expo = require('eslint-config-expo/flat');
const prettier = require('eslint-config-prettier/flat');
const globals = require('globals');

/** Each folder, and the folders that it may not import from: arrows point app → ui → state → media → kernel → core. */
const ARROWS = [
  [
    './src/core',
    ['./src/kernel', './src/render', './src/media', './src/state', './src/ui', './app', './server'],
  ],
  ['./src/kernel', ['./src/render', './src/media', './src/state', './src/ui', './app', './server']],
  ['./src/render', ['./src/media', './src/state', './src/ui', './app', './server']],
  ['./src/media', ['./src/state', './src/ui', './app', './server']],
  ['./src/state', ['./src/ui', './app', './server']],
  ['./src/ui', ['./app', './server', './src/media', './src/render', './src/kernel']],
  ['./app', ['./server', './src/media', './src/render', './src/kernel']],
  ['./server', ['./src/media', './src/state', './src/ui', './app']],
];
/** Rooms of the core in their order: each may import from those before it. */
const ROOMS = [
  ...[
    'figures',
    'time',
    'picture',
    'sound',
    'entry',
    'convert',
    'master',
    'framing',
    'cut',
    'words',
    'rate',
    'layout',
    'outlets',
    'posting',
  ],
  ...[
    'speech',
    'pass',
    'follow',
    'diagnosis',
    'render',
    'proof',
    'trouble',
    'job',
    'check',
    'trial',
    'steps',
    'interchange',
  ],
];
/** Rooms of the state in their order. */
const STATE_ROOMS = [
  'store',
  'job',
  'player',
  'master',
  'framing',
  'cut',
  'picture',
  'words',
  'export',
  'check',
  'posting',
  'files',
  'app',
];
const roomArrows = (folder, rooms) =>
  rooms.flatMap((room, i) =>
    rooms.slice(i + 1).map((later) => ({
      target: `${folder}/${room}/**/!(*.test).ts`,
      from: `${folder}/${later}`,
    })),
  );
/** Rooms of the state are entered by their `index.ts` alone. */
const FACES = STATE_ROOMS.map((room) => ({
  target: [
    './app',
    './src/ui',
    ...STATE_ROOMS.filter((other) => other !== room).map((other) => `./src/state/${other}`),
  ],
  from: `./src/state/${room}`,
  except: ['./index.ts', './test-exports.ts'],
  message: `Take it from the room's index.ts.`,
}));
const ROOM_ARROWS = [...roomArrows('./src/core', ROOMS), ...roomArrows('./src/state', STATE_ROOMS), ...FACES];
/** Formats and sources that only `openMedia` names: anything else would read playlists, and whatever files they name. */
const MEDIA_DOOR = [
  ...['Input', 'ALL_FORMATS', 'HLS', 'HLS_FORMATS', 'HlsInputFormat'],
  ...['FilePathSource', 'UrlSource', 'BlobSource', 'BufferSource', 'StreamSource', 'ReadableStreamSource'],
];
/** Results that are remembered by identity go by one rule. */
const BARE_MEMORY = { name: 'WeakMap', message: 'Results are remembered by memoize.' };
/** Scripts that run where the packages of tests are not installed. */
const SERVING = ['demo', 'worker', 'render', 'check-outlet', 'build*', 'setup', 'stamp'];
/** What the pure core may not know of. */
const NOT_IN_CORE = ['react', 'react-native', 'node:*', 'mediabunny', 'zustand', 'express'];

/** Where frames and rates are reckoned with: anywhere else they go through `core/time` (or are pixels' aspects). */
const RATE_ROOMS = [
  ...['src/core/time/**', 'src/core/cut/cut.ts', 'src/core/picture/**', 'src/core/rate/level.ts'],
  ...[
    'src/core/diagnosis/**',
    'src/core/figures/bounded.ts',
    'src/core/figures/random-id.ts',
    'src/core/master/fingerprint.ts',
    'server/listener.ts',
  ],
  ...['**/*.test.{ts,tsx}', 'tests/**', 'bench/**', 'demo/**', 'e2e/**'],
];
const BARE_NUMBERS = {
  selector: "MemberExpression[object.name='z'][property.name=/^(number|int|int32|float64|coerce|bigint)$/]",
  message: 'Numbers from outside have bounds: take one of core/figures/bounded.ts.',
};
const BARE_LISTENERS = {
  selector: "CallExpression[callee.object.name='http'][callee.property.name='createServer']",
  message: 'Listeners have limits and answer errors alike: take createListener.',
};
const BARE_IDS = {
  selector: 'Literal[regex.pattern=/0-9a-f.*(32|64)/]',
  message:
    'Ids and fingerprints are parsed in one place: take core/figures/random-id.ts or core/master/fingerprint.ts.',
};
const BARE_RATES = {
  selector: 'BinaryExpression[operator=/^[*\\/]$/] > MemberExpression[property.name=/^(num|den)$/]',
  message: 'Lengths and places go from rate to rate by the functions of core/time.',
};

/** Bounds are max and min; keys of stored and public JSON keep their names, and are destructured by them. */
const NOT_BOUNDS = '^(most|least)[A-Z]|^(MOST|LEAST)(_|$)';
/** Nouns with a preposition, and bare participles: a function is a verb and its object. */
const NOT_VERBS =
  '^(?!is|has|can)(?!\\w*([bB]ring|Sign|Stand)In$)[a-z]\\w*(Of|In|At|On|By|For|From|With)$|^(told|held|made|shown|drawn|kept|found|left|sent|seen|given|said|taken|known|done|put|laid|begun|gone)$|^[a-z]+ed$';
const NAMES = [
  'error',
  { selector: ['variable', 'parameter'], modifiers: ['destructured'], format: null },
  {
    selector: ['function', 'variable', 'parameter'],
    format: null,
    custom: { regex: NOT_BOUNDS, match: false },
  },
  {
    selector: ['function', 'variable'],
    modifiers: ['exported'],
    format: null,
    custom: { regex: `${NOT_BOUNDS}|${NOT_VERBS}`, match: false },
  },
];

module.exports = defineConfig([
  globalIgnores([
    'dist/',
    'server-build/',
    'node_modules/',
    '.expo/',
    'public/',
    'src/kernel/assembly/',
    'expo-env.d.ts',
  ]),
  expo,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      // fast-check is meant to be used through its one name.
      'import/no-named-as-default-member': 'off',
      'import/no-restricted-paths': [
        'error',
        {
          zones: [
            ...ARROWS.flatMap(([target, froms]) => froms.map((from) => ({ target, from }))),
            ...ROOM_ARROWS,
          ],
        },
      ],
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    ignores: ['src/render/open-media.ts', 'src/ui/parts/modal-dialog.tsx'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: 'mediabunny',
              importNames: MEDIA_DOOR,
              allowTypeImports: true,
              message: 'Media files are opened by openMedia, with their formats named.',
            },
            {
              name: 'react-native-paper',
              importNames: ['Portal', 'Modal'],
              message: 'What lies over a page takes the focus and Escape: take ModalDialog.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    ignores: [
      ...['src/core/figures/bounded.ts', 'src/core/figures/random-id.ts', 'src/core/master/fingerprint.ts'],
      'server/listener.ts',
      '**/*.test.ts',
      ...['tests/**', 'bench/**', 'demo/**'],
    ],
    rules: { 'no-restricted-syntax': ['error', BARE_NUMBERS, BARE_LISTENERS, BARE_IDS] },
  },
  {
    files: ['**/*.{ts,tsx}'],
    ignores: RATE_ROOMS,
    rules: { 'no-restricted-syntax': ['error', BARE_NUMBERS, BARE_LISTENERS, BARE_IDS, BARE_RATES] },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: NOT_IN_CORE }],
    },
  },
  {
    files: ['{app,bench,server,src}/**/*.{ts,tsx}'],
    // A layout goes by what it looks like.
    ignores: ['src/core/layout/kinds/*.ts'],
    rules: { '@typescript-eslint/naming-convention': NAMES },
  },
  {
    // What builds and serves is installed without what tests.
    files: ['{app,src,server}/**/*.{ts,tsx}', `scripts/{${SERVING.join()}}.mjs`],
    ignores: ['**/*.test.{ts,tsx}', '**/*test-*.{ts,tsx}', 'server/hostile-zoo.ts'],
    rules: { 'import/no-extraneous-dependencies': ['error', { devDependencies: false }] },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['src/core/figures/memoize.ts'],
    rules: { 'no-restricted-globals': ['error', BARE_MEMORY] },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', 'src/core/figures/memoize.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...['window', 'document', 'navigator', 'fetch', 'process'],
        BARE_MEMORY,
      ],
    },
  },
  {
    files: ['src/**/*.{ts,tsx}', 'server/**/*.ts', 'demo/**/*.ts', 'bench/**/*.ts', 'e2e/**/*.ts'],
    ignores: ['**/*.d.ts'],
    rules: { 'import/no-default-export': 'error' },
  },
  {
    // The gesture library's builders take callbacks that run on touch, which the rule takes for calls while drawing.
    files: [
      'src/ui/frame/use-window-gestures.ts',
      'src/ui/frame/curve-editor.tsx',
      'src/ui/cut/filmstrip.tsx',
      'src/ui/master/live-picture.tsx',
      'src/ui/words/block-handles.tsx',
      'src/ui/words/span-bar.tsx',
    ],
    rules: { 'react-hooks/refs': 'off' },
  },
  {
    files: [
      '*.config.js',
      'jest/**',
      'scripts/**',
      'server/**',
      'e2e/**',
      'demo/**',
      'bench/**',
      '**/*.test.{ts,tsx}',
    ],
    languageOptions: { globals: { ...globals.node, ...globals.jest } },
  },
  prettier,
]);
