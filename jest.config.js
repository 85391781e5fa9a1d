/** Unit tests stand beside what they test; tests of the interface are in e2e/ and run by Playwright. */
const common = {
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      {
        jsc: {
          target: "es2022",
          parser: { syntax: "typescript", tsx: true },
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "es6" },
      },
    ],
  },
  setupFiles: ["<rootDir>/app/ui/testing.ts"],
};

export default {
  testTimeout: 30000,
  projects: [
    {
      ...common,
      testEnvironment: "node",
      testMatch: ["<rootDir>/{app,core,server,standins,cli,demo,scripts}/**/*.test.ts"],
    },
    // What is drawn is tested in a page.
    {
      ...common,
      testEnvironment: "<rootDir>/app/ui/jsdom-environment.mjs",
      testMatch: ["<rootDir>/app/**/*.test.tsx"],
      setupFilesAfterEnv: ["@testing-library/jest-dom/jest-globals", "<rootDir>/app/testing/waits.ts"],
    },
  ],
};
