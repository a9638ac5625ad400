// Four projects: the core and the command line in plain Node, the server, the application's parts, the browser tests.
const nextJest = require('next/jest');

const createConfig = nextJest({ dir: './' });
/** Packages that ship as ES modules only and must be compiled like our own code. */
const MODULES_ONLY = [
  'ml-spectra-processing',
  'is-any-array',
  'ml-xsadd',
  'clipper2-ts',
  'flatbush',
  'flatqueue',
  'robust-predicates',
  'earcut',
  'idb',
  'property-graph',
  '@gltf-transform',
  'uuid',
  'svg-pathdata',
  'd3-color',
  'd3-contour|d3-polygon|d3-random',
  'd3-array',
  'internmap',
  'fast-xml-parser',
  'transformation-matrix',
];

/**
 * Looked up in the sandbox of a test these are slow, and the solver asks for them in its innermost loops: a test took
 * up to six times as long.
 */
const GLOBALS = ['Math', 'Infinity', 'Float64Array'];

async function project(overrides) {
  const config = await createConfig({
    moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
    cacheDirectory: '<rootDir>/.jest-cache',
    sandboxInjectedGlobals: GLOBALS,
    setupFiles: ['<rootDir>/scripts/properties.setup.ts'],
    ...overrides,
  })();
  return { ...config, transformIgnorePatterns: [`/node_modules/(?!(${MODULES_ONLY.join('|')})/)`] };
}

module.exports = async () => ({
  projects: await Promise.all([
    project({
      displayName: 'core',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/src/core/**/*.test.ts', '<rootDir>/src/cli/**/*.test.ts'],
    }),
    // Asked how soon it answers, so nothing else runs beside it.
    project({
      displayName: 'server',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/src/app/**/*.test.ts'],
    }),
    project({
      displayName: 'app',
      testEnvironment: 'node',
      testMatch: [
        '<rootDir>/src/ui/**/*.test.ts',
        '<rootDir>/src/store/**/*.test.ts',
        '<rootDir>/src/workers/**/*.test.ts',
      ],
    }),
    project({
      displayName: 'e2e',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/e2e/**/*.test.ts'],
      globalSetup: '<rootDir>/e2e/support/setup.ts',
      globalTeardown: '<rootDir>/e2e/support/teardown.ts',
    }),
  ]),
});
