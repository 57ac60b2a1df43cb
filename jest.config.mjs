import nextJest from 'next/jest.js';

const createConfig = nextJest({ dir: import.meta.dirname });

/** Long simulations run only when JEST_LONG is set; the same files hold the short ones. */
const config = await createConfig({
  testEnvironment: 'node',
  // All processors: by itself one is left idle, half of a small machine.
  maxWorkers: '100%',
  // Checks against programs that not every machine has wait for the long tests.
  testPathIgnorePatterns: ['/node_modules/', ...(process.env.JEST_LONG === '1' ? [] : ['[.]long[.]test[.]ts$'])],
  // Tests run inside a sandbox that makes every look at a global slow: simulations took twenty times as long without this, the
  // database's packages three times. (Not Number: a package that reads style sheets calls one of its own constants so.)
  sandboxInjectedGlobals: [
    'Math',
    'Float64Array',
    'Infinity',
    'Object',
    'Array',
    'Map',
    'Set',
    'Uint8Array',
    'Float32Array',
  ],
  testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}', '<rootDir>/test-data/**/*.test.ts', '<rootDir>/scripts/**/*.test.ts'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    '^server-only$': '<rootDir>/test-data/empty.ts',
    '^d3$': '<rootDir>/node_modules/d3/dist/d3.js',
  },
})();
config.transformIgnorePatterns = [
  '/node_modules/(?!(@stdlib|clipper2-ts|@noble|d3|d3-[^/]+|svg-pathdata|geotiff|quick-lru|xml-utils|web-worker|@petamoriken|zstddec|lerc|pako)/)',
  '^.+\\.module\\.(css|sass|scss)$',
];

export default config;
