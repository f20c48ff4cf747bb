// How many of all lines of TypeScript are tests. Plain Node, no dependency.
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { root } from "./setup.mjs";

/** Least share of tests. */
export const LEAST = 0.25;

const FOLDERS = ["core", "web", "server", "bench", "demo", "e2e", "scripts", "shared"];
const TEST = /(^|\/)(test|e2e|__mocks__)\//;

function* sources(folder) {
  for (const entry of readdirSync(path.join(root, folder), { withFileTypes: true })) {
    const file = `${folder}/${entry.name}`;
    if (entry.isDirectory()) yield* sources(file);
    else if (/\.tsx?$/.test(entry.name)) yield file;
  }
}

/** Lines of tests, and of all. */
export function testShare() {
  let [tests, all] = [0, 0];
  for (const file of [...FOLDERS.flatMap((f) => [...sources(f)]), "vite.config.ts", "playwright.config.ts"]) {
    const lines = readFileSync(path.join(root, file), "utf8").split("\n").length - 1;
    all += lines;
    if (TEST.test(file)) tests += lines;
  }
  return { tests, all, share: tests / all };
}
