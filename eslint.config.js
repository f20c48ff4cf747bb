import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

// The floors of core/src, and the rooms of a floor: a file imports only from floors and rooms that stand before its
// own.
const FLOORS = {
  base: [],
  theory: ["words", "pitch", "time", "chord", "instrument", "motion"],
  search: [],
  song: ["comp"],
  facts: [],
  hear: ["sounding", "slice", "harmony", "accents", "line", "lyrics", "singer"],
  write: ["lines", "bass", "counter", "vocal"],
  arrange: ["voicing", "reharm", "groove", "room"],
  judge: ["follow", "check"],
  files: ["notation"],
  public: [],
};
// A folder of web imports only folders listed before it; anything may be tested.
const WEB = {
  app: ["api", "workers", "store", "audio", "input", "commands"],
  kit: [],
  score: [],
  workspaces: [],
  pages: [],
};
const SERVER = {
  regex: "^(\\.\\./)+server(/|$)",
  message: "The application does not import the server; what both say stands in shared/.",
};
const USE_INDEX = { regex: "core/src/(?!index)", message: "Use core/src/index." };
const forbid = (names, where) =>
  names.length
    ? [
        {
          regex: `^(\\.\\./)+(${names.join("|")})(/|$)`,
          message: `${where} may import only what stands before it (see eslint.config.js).`,
        },
      ]
    : [];
/**
 * What each floor and each of its rooms may not import: floors above it, rooms behind its own, and what a whole side
 * never imports.
 */
const layersOf = (root, floors, never, above = []) =>
  Object.entries(floors).flatMap(([floor, rooms], i, all) => {
    const higher = all
      .slice(i + 1)
      .map(([name]) => name)
      .concat(above);
    const rule = (where, names) => ({
      files: [`${root}/${where}/**/*.{ts,tsx}`, `${root}/${where}.ts`],
      rules: { "no-restricted-imports": ["error", { patterns: [...never, ...forbid(names, `${root}/${where}`)] }] },
    });
    return [
      rule(floor, higher),
      ...rooms.map((room, k) => rule(`${floor}/${room}`, [...higher, ...rooms.slice(k + 1)])),
    ];
  });
const webLayers = layersOf("web", WEB, [USE_INDEX, SERVER]);
const ownWorkspace = {
  files: ["web/workspaces/*/**/*.{ts,tsx}"],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          USE_INDEX,
          SERVER,
          { regex: "^(\\.\\./)+pages(/|$)", message: "web/workspaces may import only folders listed before it." },
          { regex: "^\\.\\./(?!\\.)", message: "A workspace does not import another one." },
        ],
      },
    ],
  },
};
const layers = layersOf(
  "core/src",
  FLOORS,
  [
    {
      regex: "^(react|tone|express|knex|node:|.*(web|server|shared)/)",
      message: "The core has no interface code and no I/O.",
    },
  ],
  ["index"],
);

const STORES = "Song|Selection|Playback|Results|Preferences|Notice|Sound|Played|Record";

export default tseslint.config(
  { ignores: [".cache/", "dist/", "node_modules/", "data/", "test-results/", "playwright-report/"] },
  ...tseslint.configs.recommended,
  {
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-non-null-assertion": "error",
      complexity: ["error", 15],
      "no-nested-ternary": "error",
      "max-params": ["error", 4],
      "max-len": ["error", { code: 120, ignorePattern: "^\\s*(test|it|describe)(\\.each)?\\(|</?[a-zA-Z]|regex: " }],
      "@typescript-eslint/no-unused-vars": [
        "error",
        { varsIgnorePattern: "^_", argsIgnorePattern: "^_", destructuredArrayIgnorePattern: "^_" },
      ],
      "max-lines": ["error", { max: 320, skipBlankLines: true, skipComments: true }],
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
          selector: `CallExpression[callee.name=/^use(${STORES})$/][arguments.length=0]`,
          message: "Read a store with a selector.",
        },
      ],
    },
  },
  // Inner loops over typed arrays, where an index that is out of bounds cannot be; what runs inside a page has no
  // imports.
  {
    files: [
      "core/src/search/{lattice,limited,onward,pruned,second}.ts",
      "core/src/arrange/voicing/{bounds,cost,held,kept,space}.ts",
      "core/src/theory/motion/roughness.ts",
      "core/src/write/{bass,counter}/pitches.ts",
      "e2e/**",
      "bench/**",
    ],
    rules: { "@typescript-eslint/no-non-null-assertion": "off" },
  },
  // What a component draws is one expression.
  {
    files: ["web/**/*.tsx"],
    rules: { "max-lines-per-function": ["error", { max: 95, skipBlankLines: true, skipComments: true }] },
  },
  // A test file is one story of many small ones.
  {
    files: ["**/test/**", "e2e/**", "bench/**"],
    rules: {
      "max-lines-per-function": "off",
      "max-lines": ["error", { max: 410, skipBlankLines: true, skipComments: true }],
    },
  },
  // Stand-ins take the place of a module, and load what they stand beside when they are asked.
  { files: ["**/__mocks__/**"], rules: { "@typescript-eslint/no-require-imports": "off" } },
  { files: ["jest.config.cjs"], rules: { "@typescript-eslint/no-require-imports": "off", "no-undef": "off" } },
);
