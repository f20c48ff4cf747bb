import { sure } from "../src/base/list";
import { readFileSync } from "node:fs";
import type { Song } from "../src/song/schema/song";

/** The demo songs, as they were made before the tests began. */
export const demoSongs = (): Song[] => JSON.parse(readFileSync(sure(process.env.DEMO_SONGS), "utf8")) as Song[];
