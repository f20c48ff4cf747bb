import { sure } from "../../../../base/list";
import { onceFor } from "../../../../base/once";
import { mod } from "../../../../theory/pitch/pitch";
import { beatsText, positionText, type Ticks } from "../../../../theory/time/meter";
import {
  bassPc,
  chordPitchClasses,
  chordToneName,
  rootPc,
  toneName,
  type ChordTone,
} from "../../../../theory/chord/chord";
import { identifyChords } from "../../../../theory/chord/identify";
import { keyName } from "../../../../theory/pitch/key";
import type { RealizedChord } from "../../../../song/realize";
import type { Edit } from "../../../../song/edits";
import type { Slice } from "../../../../hear/slice/slices";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";
import { bestOf } from "../../ways/ways";
import { harmoniesOf, layingOut, type Harmony } from "./harmony";

/** Share of a harmony's time for which another tone must sound in the place of one of its own (common practice). */
const SHARE = 0.5;
/** A tone of the chord that sounds for less than this share of the other one's time does not hold against it. */
const HARDLY = 0.34;
/** A tone that sounds for less of the chord's time is no part of what is heard. */
const HEARD = 0.3;

/** A chord of the section that is written one way and sounds another. */
export interface Contradicted {
  chord: RealizedChord;
  /** The tone that hardly sounds, and the pitch class that sounds in its place, with how long. */
  missing: ChordTone;
  rival: number;
  time: Ticks;
  /** Notes that sound it, by part. */
  notes: { id: string; part: string }[];
  slices: readonly Slice[];
}

/**
 * Chords of which a third, an altered or plain fifth, or a seventh hardly sounds, while at least two parts (or the part
 * that lays chords out) sound the tone a semitone beside it for half of the harmony's time, or longer.
 */
export function contradictedIn(ctx: CheckContext): readonly Contradicted[] {
  const chordParts = layingOut(ctx.song);
  const strict = ctx.song.profile === "chorale";
  const id = `contradicted ${chordParts.join()} ${strict}`;
  const harmonies = harmoniesOf(ctx);
  return onceFor([harmonies], id, () => {
    const players = new Set(chordParts);
    return harmonies.flatMap((harmony) => onceFor([harmony], id, () => contradictionIn(harmony, { players, strict })));
  });
}

function contradictionIn(
  { written: chord, harmonic: slices, time: all, timeOf }: Harmony,
  { players, strict }: { players: ReadonlySet<string>; strict: boolean },
): Contradicted[] {
  const own = chordPitchClasses(chord.chord);
  const root = rootPc(chord.chord);
  const doubted = chord.chord.tones.filter((t) => [3, 5, 7].includes(t.degree));
  const minor = chord.chord.tones.some((t) => t.role === "b3");
  // Over a dominant seventh an altered fifth is a color, but in four parts.
  const colored = !strict && chord.chord.tones.some((t) => t.role === "b7");
  for (const missing of doubted)
    for (const d of [-1, 1]) {
      const rival = mod(root + missing.semitones + d, 12);
      const time = timeOf(rival);
      if (own.includes(rival) || rival === root || time < all * SHARE) continue;
      if (timeOf(root + missing.semitones) > time * HARDLY || isColor(missing, d, { minor, colored })) continue;
      const notes = slices.flatMap((s) =>
        s.notes.filter((n) => mod(n.note.midi, 12) === rival).map((n) => ({ id: n.note.id, part: n.part })),
      );
      const parts = new Set(notes.map((n) => n.part));
      if (parts.size < 2 && ![...parts].some((p) => players.has(p))) continue;
      return [{ chord, missing, rival, time, notes: [...new Map(notes.map((n) => [n.id, n])).values()], slices }];
    }
  return [];
}

/**
 * Whether a tone a semitone beside one of the chord colors it: a fourth in place of the third; over a minor third a
 * raised fifth, which is the sixth of another inversion; an altered fifth where those are colors.
 */
const isColor = (missing: ChordTone, d: number, { minor, colored }: { minor: boolean; colored: boolean }): boolean =>
  (d === 1 && missing.semitones === 4) || (missing.degree === 5 && missing.alter === 0 && (minor ? d === 1 : colored));

export const otherChord: Rule = {
  id: "other-chord",
  title: "Another chord sounds than is written",
  family: "vertical",
  explanation:
    "A tone that tells what the written chord is, its third, its seventh or an altered fifth, is hardly " +
    "played, and the tone a semitone beside it does. Either the symbol or the notes are wrong; players who " +
    "read the symbol will play against the others.",
  source: "common practice",
  severity: { chorale: "warning", band: "warning", jazz: "warning", loop: "note" },
  heard: 1.2,
  find(ctx) {
    return contradictedIn(ctx).map(({ chord, missing, rival, time, notes, slices }): RawFinding => {
      const wanted = toneName(sure(chord.chord), missing);
      const root = rootPc(sure(chord.chord));
      const rivalName = sure(
        slices.flatMap((s) => s.notes).find((n) => mod(n.note.midi, 12) === rival),
      ).note.pitch.replace(/-?\d+$/, "");
      const symbol = soundingSymbol(ctx, chord, slices);
      return {
        tick: chord.start,
        duration: chord.duration,
        parts: [...new Set(notes.map((n) => n.part))],
        notes: notes.map((n) => n.id),
        message:
          `${chord.symbol} is written at ${positionText(ctx.meter, chord.start)}, but ${wanted} hardly sounds, ` +
          `if at all: ${rivalName} sounds for ` +
          `${beatsText(ctx.meter, time)}${symbol ? `, which makes it ${symbol}` : ""}.`,
        amount: beatsText(ctx.meter, time),
        fixes: [
          ...(symbol ? [{ label: `Write ${symbol}`, edit: renamed(ctx, chord, symbol) }] : []),
          ...playedAsWritten(ctx, notes, { wanted, by: mod(root + missing.semitones - rival + 6, 12) - 6 }),
        ],
      };
    });
  },
};

/** Everybody who has the other tone plays the one that is written. */
function playedAsWritten(
  ctx: CheckContext,
  notes: Contradicted["notes"],
  { wanted, by }: { wanted: string; by: number },
): Fix[] {
  const real = notes.flatMap(
    ({ id, part }) =>
      ctx
        .threads(part)
        .flat()
        .find((n) => n.id === id) ?? [],
  );
  if (real.length < notes.length || real.some((n) => n.pinned)) return [];
  return bestOf(ctx, [
    { way: real.map((note) => ({ note, midi: note.midi + by })), label: `Play ${wanted} as written` },
  ]);
}

/** What the notes under a chord make, if it is another chord on the same bass. */
export function soundingSymbol(ctx: CheckContext, chord: RealizedChord, slices: readonly Slice[]): string | null {
  const times = new Map<number, { time: Ticks; name: string }>();
  for (const s of slices)
    for (const n of new Map(s.notes.map((x) => [mod(x.note.midi, 12), x])).values()) {
      const pc = mod(n.note.midi, 12);
      const name = chordToneName(sure(chord.chord), pc) ?? n.note.pitch.replace(/-?\d+$/, "");
      times.set(pc, { time: (times.get(pc)?.time ?? 0) + s.duration, name });
    }
  const sum = slices.reduce((all, s) => all + s.duration, 0);
  const heard = [...times].filter(([, t]) => t.time >= sum * HEARD).map(([, t]) => t.name);
  if (heard.length < 2) return null;
  const bass = times.get(bassPc(sure(chord.chord)))?.name;
  const readings = identifyChords({ pitches: heard, key: keyName(ctx.key), ...(bass ? { bass } : { noBass: true }) });
  const named = readings.find((r) => r.symbol.startsWith(sure(chord.chord).root)) ?? readings[0];
  return named && named.symbol !== chord.symbol ? named.symbol : null;
}

/** Another name for a chord whose layouts stay as they are. */
export function renamed({ section }: CheckContext, { id }: RealizedChord, symbol: string): Edit {
  const parts = Object.keys(section.chords.find((c) => c.id === id)?.voicings ?? {});
  const layouts = (part: string) =>
    Object.fromEntries(section.chords.flatMap((c) => (c.voicings?.[part] ? [[c.id, c.voicings[part].pitches]] : [])));
  const rename: Edit = { do: "setChord", section: section.id, chord: id, symbol };
  const kept = parts.map((part): Edit => ({ do: "setVoicings", section: section.id, part, pitches: layouts(part) }));
  return kept.length ? { do: "all", label: `write ${symbol}`, edits: [rename, ...kept] } : rename;
}
