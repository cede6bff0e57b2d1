/** @type {import('jest').Config} */
const config = {
  testEnvironment: "node",
  // A slow machine is no failure; what hangs is.
  testTimeout: 30_000,
  // On both cores of a small machine: no test here looks at a clock.
  maxWorkers: "100%",
  testMatch: ["**/*.test.ts"],
  testPathIgnorePatterns: ["/node_modules/", "/.next/", "/e2e/"],
  modulePathIgnorePatterns: ["/.next/"],
  moduleNameMapper: { "^@/(.*)$": "<rootDir>/$1", "^manifold-3d$": "<rootDir>/node_modules/manifold-3d/manifold.js" },
  setupFiles: ["<rootDir>/jest.seed.ts"],
  // Some come as modules only; they are translated like our own.
  transformIgnorePatterns: ["/node_modules/(?!(manifold-3d|stream-json|stream-chain)/)"],
  transform: {
    "^.+\\.(tsx?|js)$": ["@swc/jest", { jsc: { parser: { syntax: "typescript", tsx: true }, target: "es2022" }, module: { type: "commonjs" } }],
  },
};

export default config;
