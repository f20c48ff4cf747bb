import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { demoSongs } from "../../demo/songs";

/** Makes the demo songs once for all test files: the writers take seconds over them. */
export default function setup(): void {
  const file = path.join(mkdtempSync(path.join(tmpdir(), "orchard-demo-")), "songs.json");
  writeFileSync(file, JSON.stringify(demoSongs()));
  process.env.DEMO_SONGS = file;
}
