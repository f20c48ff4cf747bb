module.exports = {
  testMatch: [
    "<rootDir>/core/test/**/*.test.ts",
    "<rootDir>/server/test/**/*.test.ts",
    "<rootDir>/web/test/**/*.test.ts",
  ],
  transform: {
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
  testTimeout: 60000,
};
