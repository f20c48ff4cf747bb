// Jest's transform for what has core inside: a test file of core, or core itself for the tests of web and server,
// becomes one script with all that it imports. Modules that are compiled one by one call each other through getters,
// which made the same code several times slower than it is in the browser; and every test file loaded hundreds of
// modules anew. No module of core can be mocked.
import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { buildSync, version } from "esbuild";

const here = fileURLToPath(import.meta.url);
const root = path.join(path.dirname(here), "..");
/** Folders that end up in a bundle. */
const SOURCES = ["core/src", "core/test", "bench", "demo", "shared"];

/**
 * Jest runs tests in a context of their own, in which every look at a global is slow: what inner loops use is looked up
 * once.
 */
const GLOBALS = ["Array", "Infinity", "JSON", "Map", "Math", "Number", "Object", "Set", "String", "WeakMap"];
const TYPED = ["Float64Array", "Int8Array", "Int16Array", "Int32Array", "Uint8Array", "Uint16Array", "Uint32Array"];
const banner = { js: `const { ${[...GLOBALS, ...TYPED].join(", ")} } = globalThis;` };

/** Hash over everything that may be in a bundle; a change anywhere makes all of them anew. */
let sources;
function hashOfSources() {
  const hash = createHash("sha256").update(version).update(readFileSync(here));
  const visit = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      const file = path.join(folder, entry.name);
      if (entry.isDirectory()) visit(file);
      else if (file.endsWith(".ts")) hash.update(file).update(readFileSync(file));
    }
  };
  for (const folder of SOURCES) visit(path.join(root, folder));
  return hash.digest("hex");
}

export default {
  getCacheKey: (_text, file) =>
    createHash("sha256")
      .update((sources ??= hashOfSources()))
      .update(file)
      .digest("hex"),
  process(_text, file) {
    const { outputFiles } = buildSync({
      entryPoints: [file],
      bundle: true,
      write: false,
      outfile: "bundle.js",
      format: "cjs",
      platform: "node",
      target: "es2022",
      sourcemap: "external",
      sourcesContent: false,
      absWorkingDir: root,
      banner,
      external: ["*/scripts/bundle.mjs"],
      logLevel: "silent",
    });
    const [map, code] = outputFiles[0].path.endsWith(".map") ? outputFiles : [...outputFiles].reverse();
    return { code: code.text, map: map.text };
  },
};
