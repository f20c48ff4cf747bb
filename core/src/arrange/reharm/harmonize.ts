import { lastOf, nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { keyName, nameInKey, type Key } from "../../theory/pitch/key";
import { mod, noteOf, typeset } from "../../theory/pitch/pitch";
import { bassPc, chordPitchClasses, chordToneName, rootPc, toneRole, type Chord } from "../../theory/chord/chord";
import { romanOf } from "../../theory/chord/numerals";
import { parseChord } from "../../theory/chord/parse";
import { chordOf, NO_CHORD } from "../../theory/chord/progression";
import { partOf, sectionKey, sectionMeter, sectionOf } from "../../song/document";
import { eventAfter } from "../../song/onward";
import type { RealizedNote } from "../../song/realize";
import { because } from "../../song/reasons";
import type { ChordEvent, Reason, Song } from "../../song/schema";
import { prepare } from "../../search/lattice";
import { variedPaths } from "../../search/varied";
import { rootProgression, stepOf } from "../../hear/harmony/roots";
import { bassOf, candidates, cutSegments, onBass, type Choice, type HarmonicRhythm, type Segment } from "./choices";
import { fitOf, tuneAndBass, type Lines } from "./fit";
import { carries, lineOf, type TuneNote } from "./overLine";
import { costsOf, W } from "./harmonizeCosts";

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
 * Harmonizes the notes of a part in a section: candidates from the key and its near neighbors, exact cheapest paths by
 * the lattice, root progressions as usual in Piston's table, a cadence at the end. Pinned chords stay. Errors:
 * `harmonize.place`, `harmonize.empty` for a part without notes.
 */
export function harmonizations(request: HarmonizeRequest, as: "melody" | "bass"): Result<Harmonization[]> {
  const { song, part, rhythm, color = 0.5, ending = "closed", k = 5 } = request;
  const section = sectionOf(song, request.section);
  const found = partOf(song, part);
  if (!section || !found) return fail("harmonize.place", `No section "${request.section}" or part "${part}"`);
  const meter = sectionMeter(song, section);
  const key = sectionKey(song, section);
  const all = tuneAndBass(song, section.id, meter);
  const notes = [...all.melody, ...all.bass].filter((n) => n.part === part).sort((a, b) => a.start - b.start);
  if (!notes.length)
    return fail("harmonize.empty", `${found.name} has no notes in ${section.name}`, {
      hint: "Write or import the line first.",
    });
  const pinned = section.chords.filter((c) => c.pinned && c.symbol !== NO_CHORD);
  const segments = cutSegments(section.bars * meter.bar, meter, rhythm, pinned);
  const palette = candidates(key, color);
  const columns = segments.map((s, c): Choice[] => {
    const pin = pinned.find((c) => c.start <= s.start && c.start + c.duration >= s.start + s.duration);
    if (!pin) {
      const list = as === "bass" ? palette.map((choice) => onBass(choice, notes, segments, { c, key })) : palette;
      return s.start % meter.bar === 0 ? list : list.flatMap((x) => [x, { ...x, held: true }]);
    }
    const chord = parseChord(pin.symbol);
    return chord.ok ? [{ symbol: pin.symbol, chord: chord.value, distance: 0 }] : palette;
  });
  const after = eventAfter(song, section.id);
  const onto = after && chordOf(after.symbol);
  // Open, it leads into what comes next: the dominant of that chord may stand at the end.
  const leading = ending === "open" && onto ? leadInto(onto, key) : [];
  if (leading.length && lastOf(columns).length > 1) columns[columns.length - 1] = [...lastOf(columns), ...leading];
  const line = lineOf(notes, meter);
  const fits = columns.map((list, c) =>
    list.map((choice) => weighChoice(choice, notes, { line, s: nth(segments, c), key, lines: all, as })),
  );
  const last = columns.length - 1;
  const { node, step } = costsOf({
    key,
    meter,
    length: section.bars * meter.bar,
    rhythm,
    ending,
    as,
    notes,
    segments,
    columns,
    fits,
    ...(onto ? { onto } : {}),
  });
  const paths = variedPaths(prepare({ sizes: columns.map((c) => c.length), node, step }), {
    k,
    // The end is where it has to be in every one of them.
    alike: (c, i, j) => (c < last && alike(nth(nth(columns, c), i).chord, nth(nth(columns, c), j).chord) ? 1 : 0),
    atLeast: 1 + Math.max(1, Math.ceil(last / 5)),
  });
  return ok(
    paths.map((path): Harmonization => {
      const picks = path.picks.map((i, c) => ({
        choice: nth(nth(columns, c), i),
        fit: nth(nth(fits, c), i),
        segment: nth(segments, c),
      }));
      const events = merge(picks, section.chords, notes, { key, as });
      return {
        events,
        technique: as === "bass" ? "harmonize-bass" : "harmonize-melody",
        reasons: events.flatMap((e) => (e.why ? [e.why] : [])),
        terms: [
          { name: as === "bass" ? "bass" : "melody", cost: picks.reduce((s, p) => s + p.fit.cost, 0) * W.fit },
          { name: "outside the key", cost: picks.reduce((s, p) => s + p.choice.distance, 0) },
          {
            name: "root progressions and cadence",
            cost: path.picks.reduce((s, i, c) => s + (c < last ? step(c, i, nth(path.picks, c + 1)) : 0), 0),
          },
        ],
        cost: path.cost,
        clashes: picks.flatMap((p) => p.fit.clashes),
      };
    }),
  );
}

/** The dominant sevenths that lead into a chord of another section, where the key does not have them. */
function leadInto(onto: Chord, key: Key): Choice[] {
  const root = chordToneName(onto, mod(rootPc(onto) + 7, 12)) ?? nameInKey(mod(rootPc(onto) + 7, 12), key);
  const chord = parseChord(`${root}7`);
  return chord.ok && stepOf(onto, key) !== 1
    ? [{ symbol: `${root}7`, chord: chord.value, distance: 0.2, leads: rootPc(onto) }]
    : [];
}

/** The same root, bass and third: a musician would call it the same harmony. */
const alike = (a: Chord, b: Chord): boolean =>
  rootPc(a) === rootPc(b) &&
  bassPc(a) === bassPc(b) &&
  a.tones.some((t) => t.role === "b3") === b.tones.some((t) => t.role === "b3");

function weighChoice(
  choice: Choice,
  notes: readonly RealizedNote[],
  { line, s, key, lines, as }: { line: readonly TuneNote[]; s: Segment; key: Key; lines: Lines; as: "melody" | "bass" },
): { cost: number; clashes: string[] } {
  const fit = fitOf(choice.chord, key, { from: s.start, to: s.start + s.duration, notes, lines });
  const clashes = fit.clashes.map((c) => c.text);
  if (as === "melody") return { cost: carries(choice.chord, key, s, { line, meter: lines.meter }), clashes };
  const note = bassOf(notes, s);
  // What lies on the first beat must be in the chord.
  return { cost: fit.cost + (note && !chordPitchClasses(choice.chord).includes(mod(note.midi, 12)) ? 4 : 0), clashes };
}

/** Neighboring stretches with the same chord become one event; pinned chords stay the events they were. */
function merge(
  picks: { choice: Choice; segment: Segment }[],
  written: readonly ChordEvent[],
  notes: readonly RealizedNote[],
  { key, as }: { key: Key; as: "melody" | "bass" },
): ChordEvent[] {
  const events: ChordEvent[] = [];
  for (const { choice, segment } of picks) {
    const pin = written.find(
      (c) => c.pinned && c.start <= segment.start && c.start + c.duration >= segment.start + segment.duration,
    );
    const last = events.at(-1);
    if (pin) {
      if (last?.id !== pin.id) events.push(pin);
    } else if (last && !last.pinned && last.symbol === choice.symbol) last.duration += segment.duration;
    else
      events.push({
        id: `new${events.length + 1}`,
        start: segment.start,
        duration: segment.duration,
        symbol: choice.symbol,
      });
  }
  return events.map((event, i) =>
    event.pinned ? event : { ...event, why: reasonOf(event, events[i + 1], notes, { key, as }) },
  );
}

function reasonOf(
  event: ChordEvent,
  next: ChordEvent | undefined,
  notes: readonly RealizedNote[],
  { key, as }: { key: Key; as: "melody" | "bass" },
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
  let how: string;
  if (!following?.ok) how = "ends the section";
  else if (x !== null && y !== null)
    how =
      { usual: "usually", sometimes: "sometimes", seldom: "less often", unlisted: "seldom" }[rootProgression(x, y)] +
      ` goes to ${romanOf(following.value, key)}`;
  else how = `leads to ${typeset(following.value.root)}`;
  return because(as === "bass" ? "harmonizesBass" : "harmonizes", {
    roman: romanOf(chord.value, key),
    key: keyName(key),
    tones: carried.join(", ") || "no chord tone of the line",
    how,
  });
}
