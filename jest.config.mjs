/** Unit tests need nothing; integration tests get a PostgreSQL from `./livery test`. */
const shared = {
  testEnvironment: "node",
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      {
        jsc: {
          parser: { syntax: "typescript", tsx: true },
          target: "es2022",
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "es6" },
      },
    ],
  },
};

export default {
  projects: [
    { ...shared, displayName: "unit", testMatch: ["<rootDir>/tests/unit/**/*.test.ts"] },
    {
      ...shared,
      displayName: "integration",
      testMatch: ["<rootDir>/tests/integration/**/*.test.ts"],
    },
  ],
};
