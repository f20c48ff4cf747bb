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
  "reharm",
  "groove",
  "writer",
  "lyrics",
  "line",
  "facts",
  "singer",
  "notation",
  "room",
  "bass",
  "counter",
  "vocal",
  "follow",
  "check",
  "format",
];
// A folder of web imports only folders listed before it; anything may be tested.
const WEB = ["api", "workers", "store", "audio", "input", "commands", "ui", "score", "workspaces", "pages"];
const USE_INDEX = { regex: "core/src/(?!index)", message: "Use core/src/index." };
const webLayers = WEB.map((folder, i) => ({
  files: [`web/${folder}/**/*.{ts,tsx}`, `web/${folder}.ts`],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          USE_INDEX,
          ...(i + 1 < WEB.length
            ? [
                {
                  regex: `^(\\.\\./)+(${WEB.slice(i + 1).join("|")})(/|$)`,
                  message: `web/${folder} may import only folders listed before it.`,
                },
              ]
            : []),
        ],
      },
    ],
  },
}));
const ownWorkspace = {
  files: ["web/workspaces/*/**/*.{ts,tsx}"],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          USE_INDEX,
          { regex: "^(\\.\\./)+pages(/|$)", message: "web/workspaces may import only folders listed before it." },
          { regex: "^\\.\\./(?!\\.)", message: "A workspace does not import another one." },
        ],
      },
    ],
  },
};
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
      "max-lines": ["error", { max: 300, skipBlankLines: true, skipComments: true }],
      "max-lines-per-function": ["error", { max: 80, skipBlankLines: true, skipComments: true }],
      eqeqeq: ["error", "always", { null: "ignore" }],
    },
  },
  ...layers,
  {
    files: ["web/**/*.{ts,tsx}", "server/**/*.ts"],
    rules: { "no-restricted-imports": ["error", { patterns: [USE_INDEX] }] },
  },
  ...webLayers,
  ownWorkspace,
  {
    files: ["web/**/*.{ts,tsx}"],
    plugins: { "react-hooks": hooks },
    rules: {
      "react-hooks/rules-of-hooks": "error",
      "react-hooks/exhaustive-deps": "warn",
      "no-restricted-syntax": [
        "error",
        {
          selector:
            "CallExpression[callee.name=/^use(Song|Selection|Playback|Results|Preferences|Notice|Sound|Played|Record)$/][arguments.length=0]",
          message: "Read a store with a selector.",
        },
      ],
    },
  },
  // A test file is one story of many small ones.
  { files: ["**/test/**", "e2e/**", "bench/**"], rules: { "max-lines-per-function": "off" } },
  // Stand-ins take the place of a module, and load what they stand beside when they are asked.
  { files: ["**/__mocks__/**"], rules: { "@typescript-eslint/no-require-imports": "off" } },
  { files: ["jest.config.cjs"], rules: { "@typescript-eslint/no-require-imports": "off", "no-undef": "off" } },
);
