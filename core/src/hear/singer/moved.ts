import { sure } from "../../base/list";
import { counted } from "../../theory/words/english";
import { pitchMidi, pitchName, plainName, type Midi } from "../../theory/pitch/pitch";
import { shapeOf } from "../../theory/instrument/fretboard";
import { instrumentOf } from "../../theory/instrument/instruments";
import { playingOf } from "../../song/playing";
import { realize } from "../../song/realize";
import type { Part, Song } from "../../song/schema";
import { neckOf } from "../../theory/instrument/neck";
import { isSung, rangeOfPart } from "./range";

/** What a move brings that was not so before. */
export interface Brought {
  what: string;
  why: string;
}

const name = (midi: Midi): string => pitchName(midi, plainName(midi, true));

/**
 * What is different after music was moved: notes that are now outside an instrument or outside what is comfortable,
 * counted as often as they are played in the form, and layouts that no longer lie under the hand. A singer's caution is
 * a usual one; how it feels is for the singer to say.
 */
export function afterMove(before: Song, after: Song): Brought[] {
  const [was, is] = [before, after].map(
    (song) => new Map(realize(song).parts.map((p) => [p.id, p.notes.map((n) => n.midi)])),
  );
  return after.parts.flatMap((part): Brought[] => {
    if (part.role === "drums") return [];
    const pitches: [readonly Midi[], readonly Midi[]] = [sure(was).get(part.id) ?? [], sure(is).get(part.id) ?? []];
    return [...outsideNow(after, part, pitches), ...shapesNow(before, after, part)];
  });
}

function outsideNow(song: Song, part: Part, [was, is]: [readonly Midi[], readonly Midi[]]): Brought[] {
  const { comfortable, extremes } = rangeOfPart(song, part);
  const fresh = (low: Midi, high: Midi) => ({
    below: is.filter((m) => m < low).length - was.filter((m) => m < low).length,
    above: is.filter((m) => m > high).length - was.filter((m) => m > high).length,
  });
  const out = fresh(...extremes);
  const uneasy = fresh(...comfortable);
  const sung = isSung(song, part);
  const said = (count: number, why: string): Brought[] =>
    count > 0 ? [{ what: `${part.name}: ${counted(count, "note")}`, why }] : [];
  return [
    ...said(out.below, `below ${name(extremes[0])}, the lowest there is; an octave higher, or another key, would help`),
    ...said(out.above, `above ${name(extremes[1])}, the highest there is; an octave lower, or another key, would help`),
    ...(part.link
      ? []
      : said(uneasy.below - Math.max(0, out.below), `below ${name(comfortable[0])}, where it is comfortable`)),
    ...(part.link
      ? []
      : said(
          uneasy.above - Math.max(0, out.above),
          `above ${name(comfortable[1])}, where it is ` +
            `comfortable${sung ? "; singing high for long tires, so ask the singer" : ""}`,
        )),
  ];
}

/** Layouts of a fretted part that could be held before and cannot now. */
function shapesNow(before: Song, after: Song, part: Part): Brought[] {
  const instrument = instrumentOf(part.instrument, after);
  if (instrument.held.by !== "frets") return [];
  const unplayable = (song: Song): Set<string> => {
    const own = song.parts.find((p) => p.id === part.id) ?? part;
    return new Set(
      song.sections.flatMap((section) => {
        const { capo = 0, tuning } = playingOf(own, "voicing", { section });
        return section.chords.flatMap((c) => {
          const v = c.voicings?.[part.id];
          if (!v) return [];
          const neck = sure(neckOf(instrument, v.shape?.capo ?? capo, tuning));
          return shapeOf(
            neck,
            v.pitches.map(pitchMidi).sort((a, b) => a - b),
          )
            ? []
            : [`${section.id} ${c.id}`];
        });
      }),
    );
  };
  const held = (song: Song): number =>
    song.sections.reduce((n, section) => n + section.chords.filter((c) => c.voicings?.[part.id]?.shape).length, 0);
  const gone = held(before) - held(after);
  const was = unplayable(before);
  const fresh = [...unplayable(after)].filter((id) => !was.has(id)).length;
  return [
    ...(gone > 0
      ? [
          {
            what: `${part.name}: ${counted(gone, "shape")}`,
            why: "did not go along: on another degree a shape is another one; laid out anew",
          },
        ]
      : []),
    ...(fresh
      ? [
          {
            what: `${part.name}: ${counted(fresh, "layout")}`,
            why: "no longer lie under the hand there; lay them out anew, or try another capo",
          },
        ]
      : []),
  ];
}
