import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

// A folder of core/src imports only folders listed before it.
const ORDER = [
  "pitch",
  "time",
  "chord",
  "instrument",
  "comp",
  "song",
  "lattice",
  "slice",
  "motion",
  "harmony",
  "voicing",
  "notation",
  "reharm",
  "groove",
  "facts",
  "bass",
  "follow",
  "check",
  "format",
];
const layers = ORDER.map((folder, i) => ({
  files: [`core/src/${folder}/**/*.ts`],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          {
            regex: `^(\\.\\./)+(${ORDER.slice(i + 1)
              .concat("index")
              .join("|")})(/|$)`,
            message: `core/src/${folder} may import only folders listed before it.`,
          },
          { regex: "^(react|tone|express|knex|node:|.*(web|server)/)", message: "The core has no interface code and no I/O." },
        ],
      },
    ],
  },
}));

export default tseslint.config(
  { ignores: ["dist/", "node_modules/", "data/", "test-results/", "playwright-report/"] },
  ...tseslint.configs.recommended,
  {
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-unused-vars": [
        "error",
        { varsIgnorePattern: "^_", argsIgnorePattern: "^_", destructuredArrayIgnorePattern: "^_" },
      ],
      "max-lines": ["error", { max: 320, skipBlankLines: true, skipComments: true }],
      eqeqeq: ["error", "always", { null: "ignore" }],
    },
  },
  ...layers,
  {
    files: ["web/**/*.{ts,tsx}", "server/**/*.ts"],
    rules: { "no-restricted-imports": ["error", { patterns: [{ regex: "core/src/(?!index)", message: "Use core/src/index." }] }] },
  },
  {
    files: ["web/**/*.{ts,tsx}"],
    plugins: { "react-hooks": hooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "warn" },
  },
  { files: ["jest.config.cjs"], rules: { "@typescript-eslint/no-require-imports": "off", "no-undef": "off" } },
);
