/** @type {import('jest').Config} */
const config = {
  testEnvironment: "node",
  testMatch: ["**/*.test.ts"],
  testPathIgnorePatterns: ["/node_modules/", "/.next/", "/e2e/"],
  modulePathIgnorePatterns: ["/.next/"],
  moduleNameMapper: { "^@/(.*)$": "<rootDir>/$1" },
  transform: {
    "^.+\\.tsx?$": ["@swc/jest", { jsc: { parser: { syntax: "typescript", tsx: true }, target: "es2022" }, module: { type: "commonjs" } }],
  },
};

export default config;
