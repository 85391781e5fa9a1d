/** Unit tests stand beside what they test; tests of the interface are in e2e/ and run by Playwright. */
export default {
  testEnvironment: "node",
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
  testMatch: [
    "<rootDir>/{app,core,server,standins,cli,demo,scripts}/**/*.test.ts",
    "<rootDir>/app/**/*.test.tsx",
  ],
  setupFiles: ["<rootDir>/app/ui/testing.ts"],
  testTimeout: 30000,
};
