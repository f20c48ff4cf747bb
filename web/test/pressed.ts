import type { KeyboardEvent } from "react";
import { createMemory, kicksAt, realizedAt, sectionKey, sectionMeter, sectionPlace } from "../../core/src/index";
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

const memory = createMemory();
/** The section as the score has it now. */
export function data(): SectionData {
  const song = songNow();
  const read = memory.at(song);
  const place = sectionPlace(section().id);
  return {
    song,
    section: section(),
    real: read.get(realizedAt, place, "played"),
    roles: new Map(),
    kicks: read.get(kicksAt, place),
    meter: sectionMeter(song, section()),
    key: sectionKey(song, section()),
    length: section().bars * sectionMeter(song, section()).bar,
    pickup: 480,
    upbeats: new Map(),
    sounding: new Map(),
  };
}
