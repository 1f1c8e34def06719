const aliases = Object.fromEntries(
  ['core', 'kernel', 'render', 'media', 'state', 'ui'].map((folder) => [
    `^@${folder}/(.*)$`,
    `<rootDir>/src/${folder}/$1`,
  ]),
);

/** Packages that come as modules alone. */
const MODULES = [
  ...['mediabunny', '@noble', '@tus', 'srvx', 'cookie-es', 'p-queue', 'p-timeout', 'jsondiffpatch', 'immer'],
  ...[
    'oidc-provider',
    'oauth4webapi',
    'got',
    '@sindresorhus',
    '@szmarczak',
    'cacheable-lookup',
    'cacheable-request',
  ],
  ...['mimic-response', 'normalize-url', 'responselike', 'lowercase-keys', 'form-data-encoder', 'quick-lru'],
  ...['p-cancelable', 'nanoid'],
  ...['@dmsnell', '@zip.js', 'syllable', 'normalize-strings', 'media-captions'],
].join('|');

/** Projects on plain Node: esbuild transforms a file in about a millisecond. */
const onNode = (displayName, testMatch, more = {}) => ({
  displayName,
  rootDir: __dirname,
  testEnvironment: 'node',
  testMatch,
  transform: { '\\.[cm]?[jt]sx?$': '<rootDir>/jest/esbuild-transform.cjs' },
  transformIgnorePatterns: [`/node_modules/(?!(${MODULES})/)`],
  moduleNameMapper: aliases,
  ...more,
});

/** Projects whose tests start servers and browsers. */
const withPrograms = (displayName, testMatch) =>
  onNode(displayName, testMatch, {
    globalSetup: '<rootDir>/jest/build-server.mjs',
    setupFilesAfterEnv: ['<rootDir>/jest/patient.js', '<rootDir>/jest/become-true.js'],
  });

/** What the platform's own presets leave alone, less those. */
const ignored = (preset) =>
  require(preset).transformIgnorePatterns.map((pattern) => pattern.replace('(?!', `(?!${MODULES}|`));

/** @type {import('jest').Config} */
module.exports = {
  projects: [
    onNode('core', ['<rootDir>/{src/core,src/kernel,src/render,src/media,demo}/**/*.test.ts']),
    withPrograms('server', ['<rootDir>/server/**/*.test.ts']),
    {
      displayName: 'ui',
      rootDir: __dirname,
      preset: 'jest-expo/web',
      testMatch: ['<rootDir>/src/{state,ui}/**/*.test.ts'],
      setupFiles: ['<rootDir>/jest/setup-ui.js'],
      moduleNameMapper: { '^react-native$': 'react-native-web', ...aliases },
      transformIgnorePatterns: ignored('jest-expo/web/jest-preset'),
    },
    {
      displayName: 'components',
      rootDir: __dirname,
      preset: 'jest-expo',
      testMatch: ['<rootDir>/src/ui/**/*.test.tsx'],
      setupFiles: ['<rootDir>/jest/setup-ui.js'],
      moduleNameMapper: aliases,
      transformIgnorePatterns: ignored('jest-expo/jest-preset'),
    },
    withPrograms('e2e', ['<rootDir>/e2e/**/*.test.ts']),
  ],
};
