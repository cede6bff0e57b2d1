import next from "eslint-config-next";
import nextTypescript from "eslint-config-next/typescript";

const config = [
  { ignores: [".next/**", "out/**", "data/**", "node_modules/**", "next-env.d.ts", "playwright-report/**", "test-results/**"] },
  ...next,
  ...nextTypescript,
  {
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_" }],
      eqeqeq: ["error", "always", { null: "ignore" }],
      "no-restricted-syntax": ["error", { selector: "TSAsExpression > TSUnknownKeyword", message: "Do not cast through unknown: parse instead." }],
    },
  },
];
export default config;
