import { firstOf } from "../../base/list";
import { mod, noteOf, parsePitch, pitchClass, pitchMidi } from "../../theory/pitch/pitch";
import { bassPc } from "../../theory/chord/chord";
import { chordOf } from "../../theory/chord/progression";
import { sectionMeter, sectionOf } from "../../song/document";
import { applyEdit, type Edit } from "../../song/edits";
import { firstNote, waysOn, type WayOn } from "../../song/onward";
import type { Song } from "../../song/schema";
import { leadsTo } from "./pitches";
import { bassLines, type BassLine, type BassRequest } from "./write";

type Notes = BassLine["notes"];

/**
 * The pitch class a way leads to: that of the first note that is written there, else the bass of its chord; null where
 * it is silent.
 */
function targetOf(song: Song, way: WayOn, part: string): number | null {
  const first = firstNote(song, way, part);
  if (first) return mod(first.midi, 12);
  const chord = way.symbol === null ? null : chordOf(way.symbol);
  return chord ? bassPc(chord) : null;
}

/** Whether the end of a line leads to a pitch class: its last note does, and promises nothing else. */
function endLeadsTo(notes: Notes, target: number): boolean {
  const last = [...notes].sort((a, b) => a.start - b.start).at(-1);
  if (!last) return true;
  const promised = last.reason?.params?.target;
  if (typeof promised === "string") return pitchClass(parsePitch(promised).ok ? noteOf(promised) : promised) === target;
  const midi = pitchMidi(last.pitch);
  return leadsTo(midi, target) || mod(midi, 12) === target;
}

/**
 * A line is written once for a section and leads to what follows most of its passes. Each pass that goes on elsewhere,
 * and to which it would not lead, gets a last bar of its own: these edits, to be made after the line is taken. A pass
 * that has that bar for itself already keeps it.
 */
export function passEndings(song: Song, request: BassRequest, notes: Notes): Edit[] {
  const section = sectionOf(song, request.section);
  if (!section || !notes.length) return [];
  const meter = sectionMeter(song, section);
  const lastBar = (section.bars - 1) * meter.bar;
  const taken = applyEdit(song, {
    do: "setNotes",
    section: section.id,
    part: request.part,
    notes: notes.map(({ id: _, ...n }) => (n.start < lastBar ? { ...n, pinned: true } : n)),
  });
  if (!taken.ok) return [];
  const [, ...others] = waysOn(taken.value.song, section.id);
  return others.flatMap((way): Edit[] => {
    const target = targetOf(taken.value.song, way, request.part);
    if (target === null || endLeadsTo(notes, target)) return [];
    const lines = bassLines(onlyWay(taken.value.song, section.id, way), request);
    const best = lines.ok ? lines.value.find((l) => endLeadsTo(l.notes, target)) : undefined;
    if (!best) return [];
    const ending = [...notes.filter((n) => n.start < lastBar), ...best.notes.filter((n) => n.start >= lastBar)].map(
      ({ id: _, ...n }) => n,
    );
    return way.passes
      .filter(
        (id) =>
          !song.form.find((p) => p.id === id)?.own?.some((o) => o.bars[1] === section.bars && o.notes?.[request.part]),
      )
      .map((pass): Edit => ({
        do: "inPass",
        pass,
        here: true,
        edit: { do: "setNotes", section: section.id, part: request.part, notes: ending },
      }));
  });
}

/** The song in which a section goes on in one way alone. */
function onlyWay(song: Song, sectionId: string, way: WayOn): Song {
  const pass = firstOf(way.passes);
  return { ...song, form: song.form.filter((p) => p.sectionId !== sectionId || p.id === pass || p.id === way.next) };
}
