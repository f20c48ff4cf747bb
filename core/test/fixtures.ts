import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { must } from "../src/base/result";
import { parseSong } from "../src/song/document";
import type { Song } from "../src/song/schema/song";

const folder = path.join(process.cwd(), "core", "test", "fixtures", "version1");

/** Song files of version 1: the demo songs of 0.1.0, and golden songs with what is easily lost. Kept for ever. */
export const VERSION1: readonly string[] = readdirSync(folder)
  .map((file) => file.replace(".json", ""))
  .sort();

export const textOf = (name: string): string => readFileSync(path.join(folder, `${name}.json`), "utf8");
export const goldenSong = (name: string): Song => must(parseSong(textOf(name)));
