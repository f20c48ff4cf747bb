import type { KeyboardEvent } from "react";
import { Fact, Place, Song } from "../../core/src/index";
import type { SectionData } from "../app/store/sectionData";
import { songNow } from "../app/store/song";
import { section } from "./bench";

/** A key as a browser tells it: "Shift+ArrowUp". */
export function key(text: string): KeyboardEvent {
  const names = text.split("+");
  const held = (name: string) => names.slice(0, -1).includes(name);
  return {
    key: names.at(-1) || "+",
    shiftKey: held("Shift"),
    altKey: held("Alt"),
    ctrlKey: held("Ctrl"),
    metaKey: held("Meta"),
  } as KeyboardEvent;
}

const memory = Fact.memory();
/** The section as the score has it now. */
export function data(): SectionData {
  const song = songNow();
  const read = memory.at(song);
  const place = Place.section(section().id);
  return {
    song,
    section: section(),
    real: read.get(Fact.realized, place, "played"),
    roles: new Map(),
    kicks: read.get(Fact.kicks, place),
    meter: Song.meterOf(song, section()),
    key: Song.keyOf(song, section()),
    length: section().bars * Song.meterOf(song, section()).bar,
    pickup: 480,
    upbeats: new Map(),
    sounding: new Map(),
  };
}
