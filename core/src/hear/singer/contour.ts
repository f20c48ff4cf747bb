import { nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { mod, pitchMidi, type Midi } from "../../theory/pitch/pitch";
import { chordPitchClasses } from "../../theory/chord/chord";
import { chordOf } from "../../theory/chord/progression";
import { partOf, sectionKey, sectionOf } from "../../song/document";
import type { Edit } from "../../song/edits";
import { because } from "../../song/reasons";
import type { NewNote, Note, Section, Song } from "../../song/schema";
import { spellAt } from "../../song/spell";
import { cheapestPath } from "../../search/lattice";
import { rangeOfPart } from "./range";

/** A line brought inside a range: rhythm and words as they were. */
export interface Rewritten {
  title: string;
  /** The line leaves the voice, not only what is at ease. */
  beyond: boolean;
  notes: (NewNote & { id: string })[];
  edit: Edit;
  /** Ids of the notes that are others now. */
  changed: string[];
  /** Share of its moves that go the way they went. */
  shape: number;
}

/** What changing a note costs, and what a move that goes another way does (common practice throughout). */
const COST = {
  changed: 0.8,
  semitone: 0.12,
  octave: 0.5,
  noChordTone: 1.6,
  turned: 3,
  flattened: 1.2,
  size: 0.1,
  edge: 0.15,
  repeated: 2,
} as const;

interface Candidate {
  midi: Midi;
  cost: number;
}

/**
 * Tones a note may take: as it was where that is inside; otherwise tones of the key and chord, a tone of the chord
 * where it was one.
 */
function candidates(
  section: Section,
  pcsOfKey: readonly number[],
  note: Note,
  { voice: [low, high], easy }: { voice: [Midi, Midi]; easy: [Midi, Midi] },
): Candidate[] {
  const was = pitchMidi(note.pitch);
  if (note.pinned) return [{ midi: was, cost: 0 }];
  const chord = chordOf(section.chords.findLast((c) => c.start <= Math.max(0, note.start))?.symbol ?? "");
  const pcs = chord ? chordPitchClasses(chord) : [];
  const own = pcs.includes(mod(was, 12));
  const out: Candidate[] = [];
  for (let midi = low; midi <= high; midi++) {
    const pc = mod(midi, 12);
    if (midi !== was && pc !== mod(was, 12) && !pcs.includes(pc) && !pcsOfKey.includes(pc)) continue;
    const away = Math.abs(midi - was);
    let cost = midi === was ? 0 : COST.changed + (away % 12 === 0 ? COST.octave : away * COST.semitone);
    if (own && !pcs.includes(pc)) cost += COST.noChordTone;
    out.push({ midi, cost: cost + Math.max(0, easy[0] - midi, midi - easy[1]) * COST.edge });
  }
  return out;
}

/** What a move costs against the one it stands for. */
function moved(was: number, is: number): number {
  let turned: 2 | 3 | 0 | 1.2;
  if (was === 0) {
    if (is === 0) turned = 0;
    else turned = COST.repeated;
  } else if (is === 0) turned = COST.flattened;
  else if (Math.sign(is) === Math.sign(was)) turned = 0;
  else turned = COST.turned;
  return turned + Math.abs(Math.abs(is) - Math.abs(was)) * COST.size;
}

/**
 * A part of a section brought inside a range: only what must change does, its moves go where they went as far as there
 * is room. Two ways: inside the whole voice, and at ease. Empty where nothing lies outside. Errors: `contour.part`,
 * `contour.range`.
 */
export function rewriteContour(
  song: Song,
  { section: sectionId, part: partId, range }: { section: string; part: string; range?: [Midi, Midi] },
): Result<Rewritten[]> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section || !part) return fail("contour.part", `No part "${partId}" or no section "${sectionId}" is in the song`);
  const voice = rangeOfPart(song, part);
  const ranges: [title: string, range: [Midi, Midi]][] = range
    ? [["Inside the range", range]]
    : [
        ["Inside the voice", voice.extremes],
        ["Where the voice is at ease", voice.comfortable],
      ];
  if (ranges.some(([, [low, high]]) => high - low < 4))
    return fail("contour.range", "The range is less than a third", { hint: "A line needs more room." });
  const notes = section.notes[partId] ?? [];
  const key = sectionKey(song, section);
  const out = ranges.flatMap(([title, inside]): Rewritten[] => {
    const outside = (n: Note) => pitchMidi(n.pitch) < inside[0] || pitchMidi(n.pitch) > inside[1];
    if (!notes.some(outside)) return [];
    const tones = notes.map((n) =>
      candidates(section, key.pcs, n, { voice: inside, easy: range ?? voice.comfortable }),
    );
    if (tones.some((t) => !t.length)) return [];
    const were = notes.map((n) => pitchMidi(n.pitch));
    const path = cheapestPath({
      sizes: tones.map((t) => t.length),
      node: (c, i) => nth(nth(tones, c), i).cost,
      step: (c, i, j) =>
        moved(nth(were, c + 1) - nth(were, c), nth(nth(tones, c + 1), j).midi - nth(nth(tones, c), i).midi),
    });
    if (!path) return [];
    const now = path.picks.map((p, c) => nth(nth(tones, c), p).midi);
    const moves = were.slice(1).map((w, i) => Math.sign(w - nth(were, i)) === Math.sign(nth(now, i + 1) - nth(now, i)));
    const written = notes.map((n, i) =>
      now[i] === were[i]
        ? n
        : {
            ...n,
            pitch: spellAt(song, section, n.start, nth(now, i)),
            reason: because("inside", { pitch: spellAt(song, section, n.start, nth(now, i)), from: n.pitch }),
          },
    );
    return [
      {
        title,
        beyond: notes.some((n) => pitchMidi(n.pitch) < voice.extremes[0] || pitchMidi(n.pitch) > voice.extremes[1]),
        notes: written,
        edit: { do: "setNotes", section: sectionId, part: partId, notes: written },
        changed: notes.filter((_, i) => now[i] !== were[i]).map((n) => n.id),
        shape: moves.length ? moves.filter(Boolean).length / moves.length : 1,
      },
    ];
  });
  const seen = new Set<string>();
  return ok(out.filter((o) => !seen.has(JSON.stringify(o.notes)) && seen.add(JSON.stringify(o.notes))));
}
