import { sure } from "../base/list";
import { transposeKey, type Key } from "../theory/pitch/key";
import {
  mod,
  parseNote,
  pitchClass,
  plainName,
  transposeNote,
  type NoteName,
  type Semitones,
} from "../theory/pitch/pitch";
import type { Meter, Ticks } from "../theory/time/meter";
import { swung, type Swing } from "../theory/time/swing";
import { sectionKey, sectionMeter, sectionSwing } from "./document";
import { findPlace, type Place } from "./place";
import { playingOf } from "./playing";
import type { Part, Pass, Section, Song } from "./schema";

/** One section or pass with what its parts need to be realized; `from` and `to` are ticks of the section. */
export interface Frame {
  section: Section;
  pass: Pass | undefined;
  meter: Meter;
  swing: Swing;
  sectionId: string;
  /** The pass; the section itself where it is realized alone. */
  passId: string;
  /** As it sounds: transposed with the pass. */
  key: Key;
  from: Ticks;
  to: Ticks;
  semitones: Semitones;
  /** A note's name as it sounds: as many letters and semitones from its own as the keys are apart. */
  moved(name: NoteName): NoteName;
}

/** How names go from one key to another; plain where the exact name would need two accidentals. */
export function movedBetween(from: Key, to: Key, semitones: Semitones): (name: NoteName) => NoteName {
  const letters = mod(sure(parseNote(to.tonic)).step - sure(parseNote(from.tonic)).step, 7);
  const distance = mod(semitones, 12);
  return (name) => {
    const exact = transposeNote(name, letters, distance);
    return Math.abs(sure(parseNote(exact)).alter) < 2
      ? exact
      : plainName(mod(pitchClass(name) + distance, 12), to.flats);
  };
}

export function frameOf(song: Song, place: Place): Frame | null {
  const found = findPlace(song, place);
  if (!found) return null;
  const { section, pass } = found;
  const meter = sectionMeter(song, section);
  const [fromBar, toBar] = pass?.bars ?? [0, section.bars];
  const semitones = pass?.transpose ?? 0;
  const home = sectionKey(song, section);
  const from = Math.min(fromBar, section.bars) * meter.bar;
  const key = semitones ? transposeKey(home, semitones) : home;
  return {
    section,
    pass,
    sectionId: section.id,
    passId: pass?.id ?? section.id,
    meter,
    swing: sectionSwing(song, section),
    key,
    moved: movedBetween(home, key, semitones),
    from,
    to: Math.max(from, Math.min(toBar, section.bars) * meter.bar),
    semitones,
  };
}

/** Where a notated tick, counted from the beginning of the place, is played. */
export const playedAt =
  ({ meter, from }: Frame, swing: Swing) =>
  (tick: Ticks): number => {
    const inSection = tick + from;
    const bar = Math.floor(inSection / meter.bar) * meter.bar;
    return bar + swung(inSection - bar, meter.bar, swing) - from;
  };

/** Velocity from one step of loudness to the next: p 48, mp 64, mf 80, f 96 (common practice). */
const LOUDNESS_STEP = 16;

/** By how much of velocity a part is louder at a place than it is written. */
export const louderBy = (part: Part, { section, pass }: Frame): number =>
  (playingOf(part, "dynamics", { section, pass }).steps ?? 0) * LOUDNESS_STEP;
/** A velocity so much louder or softer, inside what can be struck. */
export const atVelocity = (velocity: number, louder: number): number =>
  louder ? Math.min(127, Math.max(1, velocity + louder)) : velocity;
