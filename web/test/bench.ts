import { type Edit, firstOf, must, nth, type Section, Song, sure } from "../../core/src/index";
import * as sound from "../app/audio/sound";
import { startAnalysis } from "../app/store/analysis";
import { resetPlayback } from "../app/store/playback";
import { resetPreferences } from "../app/store/preferences";
import { resetResults } from "../app/store/results";
import { resetSelection } from "../app/store/selection";
import { songNow, useSong } from "../app/store/song";
import * as client from "../app/workers/client";

/** The stand-ins under `__mocks__`; a test that uses the bench mocks both modules. */
export const { heard, notesHeard, setPlayhead } = sound as unknown as typeof import("../app/audio/__mocks__/sound");
export const { idle } = client as unknown as typeof import("../app/workers/__mocks__/client");

let end: (() => void) | null = null;

/** Opens a song as the application does: all stores as for a newcomer, the workers following. */
export async function bench(song: Song = must(Song.create({ title: "Press House" }))): Promise<void> {
  end?.();
  resetPreferences();
  resetPlayback();
  resetResults();
  resetSelection(firstOf(song.sections).id);
  heard.length = 0;
  notesHeard.length = 0;
  useSong.getState().open(song, 1);
  end = startAnalysis();
  await idle();
}

/** Makes edits one after another, each with what follows it. Fails where one is refused. */
export async function make(...edits: Edit[]): Promise<void> {
  for (const edit of edits) {
    if (!useSong.getState().edit(edit)) throw new Error(`${edit.do}: ${sure(useSong.getState().problem).message}`);
    await idle();
  }
}

export const section = (index = 0): Section => nth(songNow().sections, index);
export const symbols = (index = 0): string =>
  section(index)
    .chords.map((c) => c.symbol)
    .join(" ");
export const layouts = (part = "keys", index = 0): string[] =>
  section(index).chords.map((c) => c.voicings?.[part]?.pitches.join(" ") ?? "");
