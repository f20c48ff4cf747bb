import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { demoSongs } from "../../demo/songs";

/** Makes what all test files need once: the demo songs, over which the writers take seconds, and the programs. */
export default async function setup(): Promise<void> {
  const { bundle, bundleServer } = await import("../../scripts/bundle.mjs");
  process.env.SERVER = bundleServer();
  process.env.STORM = bundle("web/test/stormWriter.ts");
  process.env.CHECK = bundle("scripts/check.ts");
  const file = path.join(mkdtempSync(path.join(tmpdir(), "orchard-demo-")), "songs.json");
  writeFileSync(file, JSON.stringify(demoSongs()));
  process.env.DEMO_SONGS = file;
}
