import { existsSync, readFileSync, renameSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import type * as Kit from "./kit";
import { KIT } from "../scripts/bundle.mjs";

/**
 * Core and demo songs, from the script that playwright.config.ts bundles once: read file by file they would take every
 * worker many seconds.
 */
const kit = (await import(KIT)) as typeof Kit;
export const { firstOf, lastOf, must, nth, sure } = kit;
export const { eightParts } = kit;
export const { Edit, Instrument, Meter, Midi, Pitch, Song, Tune } = kit;
export type Edit = Kit.Edit;
export type Song = Kit.Song;
export type Note = Kit.Note;
export type RealizedSong = Kit.RealizedSong;

/**
 * A file with the demo songs, which the writers take seconds to write: the first who needs it makes it, for every
 * worker of this run.
 */
export function songFile(): string {
  const file = path.join(path.dirname(KIT), "demo.json");
  if (existsSync(file) && statSync(file).mtimeMs > statSync(KIT).mtimeMs) return file;
  writeFileSync(`${file}.${process.pid}`, JSON.stringify(kit.demoSongs()));
  renameSync(`${file}.${process.pid}`, file);
  return file;
}

export const demoSongs = (): Song[] => JSON.parse(readFileSync(songFile(), "utf8")) as Song[];
