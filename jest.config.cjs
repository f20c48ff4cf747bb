module.exports = {
  testMatch: [
    "<rootDir>/core/test/**/*.test.ts",
    "<rootDir>/server/test/**/*.test.ts",
    "<rootDir>/web/test/**/*.test.ts",
  ],
  transform: {
    "/core/test/.+\\.test\\.ts$": "<rootDir>/scripts/jestBundle.mjs",
    // For tests of web and server all of core is one script.
    "/core/src/index\\.ts$": "<rootDir>/scripts/jestBundle.mjs",
    "/core/test/demoSetup\\.ts$": "<rootDir>/scripts/jestBundle.mjs",
    "^.+\\.[jt]sx?$": [
      "@swc/jest",
      {
        jsc: {
          parser: { syntax: "typescript", tsx: true },
          target: "es2022",
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "commonjs" },
      },
    ],
  },
  globalSetup: "<rootDir>/core/test/demoSetup.ts",
  // Both cores of a small machine; by default one would stand idle.
  maxWorkers: "100%",
  // Style sheets say nothing without a browser.
  moduleNameMapper: { "\\.scss$": "<rootDir>/web/test/noStyle.ts" },
  transformIgnorePatterns: ["/node_modules/(?!(@exodus|chord-symbol|cmu-pronouncing-dictionary|tonal|@tonaljs)/)"],
  // A machine may be several times slower than the one on which a test was written.
  testTimeout: 240000,
};
