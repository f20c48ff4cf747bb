// The server, or another program of this folder, as one script, so that it starts in a moment.
import { renameSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { buildSync } from "esbuild";

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), "..");

/** Bundles a program (packages stay outside) and returns the path of the script, one folder below the root. */
export function bundle(entry) {
  const file = path.join(root, ".cache", `${path.basename(entry, ".ts")}.mjs`);
  // Several may do this at once: each writes a file of its own, and the last one stays.
  const own = `${file}.${process.pid}`;
  buildSync({
    entryPoints: [path.join(root, entry)],
    bundle: true,
    outfile: own,
    format: "esm",
    platform: "node",
    target: "node20",
    packages: "external",
    sourcemap: "inline",
    sourcesContent: false,
    logLevel: "warning",
  });
  renameSync(own, file);
  return file;
}

export const bundleServer = () => bundle("server/main.ts");

/** What tests of the application need of core: the script, and where it will be. */
export const bundleKit = () => bundle("e2e/kit.ts");
export const KIT = path.join(root, ".cache", "kit.mjs");
