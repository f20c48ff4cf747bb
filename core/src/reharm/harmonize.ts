import { fail, ok, type Result } from "../result";
import { keyName, type Key } from "../pitch/key";
import { mod, noteOf, typeset } from "../pitch/pitch";
import { metricalLevel } from "../time/meter";
import { bassPc, chordPitchClasses, rootPc, toneRole, type Chord } from "../chord/chord";
import { romanOf } from "../chord/numerals";
import { parseChord } from "../chord/parse";
import { NO_CHORD } from "../chord/progression";
import { partOf, sectionKey, sectionMeter, sectionOf } from "../song/document";
import type { RealizedNote } from "../song/realize";
import { because } from "../song/reasons";
import type { ChordEvent, Reason, Song } from "../song/schema";
import { cheapestPaths, prepare } from "../lattice/lattice";
import { smallestMotion } from "../harmony/distance";
import { rootProgression, stepOf } from "../harmony/roots";
import { bassOf, candidates, cutSegments, onBass, type Choice, type HarmonicRhythm, type Segment } from "./choices";
import { fitOf, linesOf, outsideOf, type Lines } from "./fit";

export interface HarmonizeRequest {
  song: Song;
  section: string;
  /** The part whose notes are harmonized. */
  part: string;
  rhythm: HarmonicRhythm;
  /** 0 only triads of the key, 1 sevenths and the key's near neighbors as readily. */
  color?: number;
  /** "closed" ends at home, "open" on the dominant that leads back. */
  ending?: "closed" | "open";
  k?: number;
}

export interface Harmonization {
  events: ChordEvent[];
  technique: "harmonize-melody" | "harmonize-bass";
  reasons: Reason[];
  terms: { name: string; cost: number }[];
  cost: number;
  clashes: string[];
}

/** Weights (common practice), in the same unit as the fit: beats of clash. */
const W = {
  fit: 2,
  change: 0.35,
  stay: 0.8,
  recolor: 0.35,
  weakChange: 0.8,
  motion: 0.06,
  usual: { usual: 0, sometimes: 0.35, seldom: 0.9, unlisted: 1.1 },
  end: 4,
  start: 0.8,
  stray: 2.5,
} as const;

/** The list alone, best first; empty where `harmonizations` would name an error. */
export function harmonizeMelody(request: HarmonizeRequest): Harmonization[] {
  const result = harmonizations(request, "melody");
  return result.ok ? result.value : [];
}

/** As `harmonizeMelody`, with the notes taken as the bass of the chords. */
export function harmonizeBass(request: HarmonizeRequest): Harmonization[] {
  const result = harmonizations(request, "bass");
  return result.ok ? result.value : [];
}

/**
 * Harmonizes the notes of a part in a section: candidates from the key and its near neighbors, exact cheapest paths by the lattice, root progressions
 * as usual in Piston's table, a cadence at the end. Pinned chords stay. Errors: `harmonize.place`, `harmonize.empty` for a part without notes.
 */
export function harmonizations(request: HarmonizeRequest, as: "melody" | "bass"): Result<Harmonization[]> {
  const { song, part, rhythm, color = 0.5, ending = "closed", k = 5 } = request;
  const section = sectionOf(song, request.section);
  const found = partOf(song, part);
  if (!section || !found) return fail("harmonize.place", `No section "${request.section}" or part "${part}"`);
  const meter = sectionMeter(song, section);
  const key = sectionKey(song, section);
  const all = linesOf(song, section.id, meter);
  const notes = [...all.melody, ...all.bass].filter((n) => n.part === part).sort((a, b) => a.start - b.start);
  if (!notes.length)
    return fail("harmonize.empty", `${found.name} has no notes in ${section.name}`, { hint: "Write or import the line first." });
  const pinned = section.chords.filter((c) => c.pinned && c.symbol !== NO_CHORD);
  const segments = cutSegments(section.bars * meter.bar, meter, rhythm, pinned);
  const palette = candidates(key, color);
  const columns = segments.map((s): Choice[] => {
    const pin = pinned.find((c) => c.start <= s.start && c.start + c.duration >= s.start + s.duration);
    if (!pin) return as === "bass" ? palette.map((c) => onBass(c, notes, s, key)) : palette;
    const chord = parseChord(pin.symbol);
    return chord.ok ? [{ symbol: pin.symbol, chord: chord.value, distance: 0 }] : palette;
  });
  const fits = columns.map((list, c) => list.map((choice) => weighChoice(choice, notes, segments[c]!, key, all, as)));
  const last = columns.length - 1;
  const endCost = (chord: Chord): number => {
    const step = stepOf(chord, key);
    if (ending === "open") return step === 5 && chord.tones.some((t) => t.role === "3") ? 0 : W.end;
    return step === 1 && outsideOf(chord, key) === 0 ? (bassPc(chord) === rootPc(chord) ? 0 : 1) : W.end;
  };
  const node = (c: number, i: number): number => {
    const choice = columns[c]![i]!;
    const tonicStart = c === 0 && stepOf(choice.chord, key) !== 1 ? W.start : 0;
    return fits[c]![i]!.cost * W.fit + choice.distance + tonicStart + (c === last ? endCost(choice.chord) : 0);
  };
  const step = (c: number, i: number, j: number): number => {
    const a = columns[c]![i]!;
    const b = columns[c + 1]![j]!;
    const onBar = segments[c + 1]!.start % meter.bar === 0;
    // Who asks for a chord each bar wants to hear changes.
    if (a.symbol === b.symbol) return onBar ? (rhythm === "free" ? W.change : W.stay) : rhythm === "free" ? 0 : W.change;
    const [x, y] = [stepOf(a.chord, key), stepOf(b.chord, key)];
    const usual = x !== null && y !== null ? W.usual[rootProgression(x, y)] : 0.5;
    // Another color of the same chord is hardly a change.
    if (rootPc(a.chord) === rootPc(b.chord) && bassPc(a.chord) === bassPc(b.chord)) return W.change + W.recolor;
    // An applied dominant that does not arrive is a stray.
    const stray = a.leads !== undefined && a.leads !== rootPc(b.chord) ? W.stray : 0;
    const weak = rhythm === "free" && !onBar ? W.weakChange : 0;
    // The last step is the cadence: it comes from the dominant, or plagally.
    const leading = a.chord.tones.some((t) => t.role === "3");
    const cadence = c + 1 === last && ending === "closed" ? (x === 5 && leading ? 0 : x === 4 ? 0.6 : 1.2) : 0;
    return usual + stray + weak + cadence + smallestMotion(a.chord, b.chord) * W.motion;
  };
  const paths = cheapestPaths(prepare({ sizes: columns.map((c) => c.length), node, step }), {
    k,
    differs: (a, b) =>
      a.filter((x, i) => !alike(columns[i]![x]!.chord, columns[i]![b[i]!]!.chord)).length >= Math.max(1, Math.ceil(columns.length / 5)),
    limit: 6000,
  });
  return ok(
    paths.map((path): Harmonization => {
      const picks = path.picks.map((i, c) => ({ choice: columns[c]![i]!, fit: fits[c]![i]!, segment: segments[c]! }));
      const events = merge(picks, section.chords, notes, key, as);
      return {
        events,
        technique: as === "bass" ? "harmonize-bass" : "harmonize-melody",
        reasons: events.flatMap((e) => (e.why ? [e.why] : [])),
        terms: [
          { name: as === "bass" ? "bass" : "melody", cost: picks.reduce((s, p) => s + p.fit.cost, 0) * W.fit },
          { name: "outside the key", cost: picks.reduce((s, p) => s + p.choice.distance, 0) },
          {
            name: "root progressions and cadence",
            cost: path.picks.reduce((s, i, c) => s + (c < last ? step(c, i, path.picks[c + 1]!) : 0), 0),
          },
        ],
        cost: path.cost,
        clashes: picks.flatMap((p) => p.fit.clashes),
      };
    }),
  );
}

/** The same root, bass and third: a musician would call it the same harmony. */
const alike = (a: Chord, b: Chord): boolean =>
  rootPc(a) === rootPc(b) && bassPc(a) === bassPc(b) && a.tones.some((t) => t.role === "b3") === b.tones.some((t) => t.role === "b3");

function weighChoice(
  choice: Choice,
  notes: readonly RealizedNote[],
  s: Segment,
  key: Key,
  lines: Lines,
  as: "melody" | "bass",
): { cost: number; clashes: string[] } {
  const fit = fitOf(choice.chord, key, s.start, s.start + s.duration, notes, lines);
  let cost = fit.cost;
  if (as === "bass") {
    const note = bassOf(notes, s);
    // What lies on the first beat must be in the chord.
    if (note && !chordPitchClasses(choice.chord).includes(mod(note.midi, 12))) cost += 4;
  } else {
    // The tone that is held longest, on the strongest place, is best a chord tone; root and third best of all.
    for (const n of notes) {
      if (n.start < s.start || n.start >= s.start + s.duration || metricalLevel(lines.meter, n.start) < -1) continue;
      const { role, inChord } = toneRole(choice.chord, mod(n.midi, 12));
      // A tension can carry a strong place, but the chord should rather hold the note.
      if (!inChord) cost += 0.45;
      if (inChord) cost += role === "R" || role === "3" || role === "b3" ? 0 : role === "5" ? 0.06 : 0.12;
    }
  }
  return { cost, clashes: fit.clashes.map((c) => c.text) };
}

/** Neighboring stretches with the same chord become one event; pinned chords stay the events they were. */
function merge(
  picks: { choice: Choice; segment: Segment }[],
  written: readonly ChordEvent[],
  notes: readonly RealizedNote[],
  key: Key,
  as: "melody" | "bass",
): ChordEvent[] {
  const events: ChordEvent[] = [];
  for (const { choice, segment } of picks) {
    const pin = written.find((c) => c.pinned && c.start <= segment.start && c.start + c.duration >= segment.start + segment.duration);
    const last = events.at(-1);
    if (pin) {
      if (last?.id !== pin.id) events.push(pin);
    } else if (last && !last.pinned && last.symbol === choice.symbol) last.duration += segment.duration;
    else events.push({ id: `new${events.length + 1}`, start: segment.start, duration: segment.duration, symbol: choice.symbol });
  }
  return events.map((event, i) => (event.pinned ? event : { ...event, why: reasonOf(event, events[i + 1], notes, key, as) }));
}

function reasonOf(
  event: ChordEvent,
  next: ChordEvent | undefined,
  notes: readonly RealizedNote[],
  key: Key,
  as: "melody" | "bass",
): Reason {
  const chord = parseChord(event.symbol);
  if (!chord.ok) return because("user");
  const inside = notes.filter((n) => n.start < event.start + event.duration && n.start + n.duration > event.start);
  const carried = [...new Map(inside.map((n) => [mod(n.midi, 12), n])).values()].flatMap((n) => {
    const { role, inChord } = toneRole(chord.value, mod(n.midi, 12));
    return inChord ? [`${typeset(noteOf(n.pitch))} (${typeset(role)})`] : [];
  });
  const following = next && next.symbol !== NO_CHORD ? parseChord(next.symbol) : null;
  const [x, y] = [stepOf(chord.value, key), following?.ok ? stepOf(following.value, key) : null];
  const how = !following?.ok
    ? "ends the section"
    : x !== null && y !== null
      ? { usual: "usually", sometimes: "sometimes", seldom: "less often", unlisted: "seldom" }[rootProgression(x, y)] +
        ` goes to ${romanOf(following.value, key)}`
      : `leads to ${typeset(following.value.root)}`;
  return because(as === "bass" ? "harmonizesBass" : "harmonizes", {
    roman: romanOf(chord.value, key),
    key: keyName(key),
    tones: carried.join(", ") || "no chord tone of the line",
    how,
  });
}
