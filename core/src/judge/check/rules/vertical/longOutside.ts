import { firstOf, sure } from "../../../../base/list";
import { onceFor } from "../../../../base/once";
import { mod, noteOf } from "../../../../theory/pitch/pitch";
import { listed } from "../../../../theory/words/english";
import { isRub } from "../../../../hear/line/between";
import { beatsText, positionText, type Ticks } from "../../../../theory/time/meter";
import { chordPitchClasses } from "../../../../theory/chord/chord";
import { spellAt } from "../../../../song/spell";
import { KIND_WORDS, ROLE_WORDS, type RoleSpan } from "../../../../hear/slice/roles";
import { sliceAt } from "../../../../hear/slice/slices";
import { playingOf } from "../../../../song/playing";
import { BASS_STYLES } from "../../../../write/bass/styles";
import type { RealizedNote } from "../../../../song/realize";
import type { Edit } from "../../../../song/edits";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";
import { waysOut } from "../../ways/ways";
import { inOtherKey } from "../handover/oldKey";
import { contradictedIn } from "./otherChord";

/**
 * Longest stay outside the chord that passes unnoticed, in beats (common practice): a bass half a beat, an upper line
 * under one beat.
 */
const ALLOWED = { bass: 0.5, upper: 0.99 } as const;
/** Ornaments that are meant to be heard, by name, and how long they may last in beats. */
const BY_NAME: Record<string, number> = {
  pedal: Infinity,
  anticipation: 1,
  suspension: 2,
  retardation: 2,
  appoggiatura: 1,
};

/** A bass of which so many notes last a beat walks. */
const WALKING = 0.7;
const walks = (notes: readonly RealizedNote[], beat: Ticks): boolean =>
  notes.length >= 8 && notes.filter((n) => Math.abs(n.duration - beat) <= beat / 4).length >= notes.length * WALKING;

export const longOutside: Rule = {
  id: "long-outside",
  title: "Long note outside the chord",
  family: "vertical",
  explanation:
    "A note outside the sounding chord is heard as passing while it is short; a walking bass may lead on for a " +
    "beat, but not where the chord begins. Held, it is heard as a wrong chord. Notes that are held into another " +
    "chord are judged again there. Pedals, anticipations and resolved suspensions are excepted by name.",
  source: "common practice; non-chord tones as in any harmony textbook",
  severity: { chorale: "fault", band: "warning", jazz: "note", loop: "warning" },
  find: (ctx) => outsideIn(ctx).map((same) => foundOf(ctx, same)),
};

/** Spans of notes that are no tones of their chords, of a part whose roles these are. */
const foreignIn = (
  roles: ReadonlyMap<RealizedNote, RoleSpan[]>,
): { note: RealizedNote; span: RoleSpan; index: number }[] =>
  onceFor([roles], "foreign", () =>
    [...roles].flatMap(([note, spans]) =>
      spans.flatMap((span, index) =>
        span.kind === "chord" || span.kind === "free" || !span.chord?.chord ? [] : [{ note, span, index }],
      ),
    ),
  );

/** All notes that stay outside their chord too long; the same tone in several parts together. */
export function outsideIn(ctx: CheckContext): [Foreign, ...Foreign[]][] {
  const { song, section, sliced, meter } = ctx;
  // What makes another chord of one is told there.
  const told = new Map(contradictedIn(ctx).map((c) => [c.chord.start, c.rival]));
  // A style of bass that goes by step may stay outside for as long as it aims at, where the note is led on.
  const byStyle = (id: string): number => {
    const { style } = playingOf(sure(song.parts.find((p) => p.id === id)), "bass", { section });
    return Math.max(ALLOWED.bass, BASS_STYLES.find((s) => s.id === style)?.targets.longestOutside ?? ALLOWED.bass);
  };
  const led = new Set(["approach", "passing", "neighbor"]);
  const beat = firstOf(meter.beats).duration;
  const walking = new Set(sliced.real.parts.filter((p) => p.role === "bass" && walks(p.notes, beat)).map((p) => p.id));
  // A light passing or neighboring tone may last a beat; so may the notes of a bass that walks, but the one on which a
  // chord begins says what it is.
  const usual = ({ id, role }: { id: string; role: string }, { kind, accented, start, chord }: RoleSpan): number => {
    if (role !== "bass") return kind !== "approach" && led.has(kind) && !accented ? 1 : ALLOWED.upper;
    if (walking.has(id)) return start === chord?.start && !led.has(kind) ? 0 : 1;
    return led.has(kind) ? byStyle(id) : ALLOWED.bass;
  };
  const elsewhere = inOtherKey(ctx);
  const found = sliced.real.parts
    .filter((p) => !p.linked && p.role !== "drums" && !elsewhere.has(p.id))
    .flatMap((part) =>
      foreignIn(sure(sliced.roles.get(part.id))).flatMap(({ note, span, index }): Foreign[] => {
        const chord = sure(span.chord);
        if (told.get(chord.start) === mod(note.midi, 12)) return [];
        if (span.kind === "tension" && part.role !== "bass") return [];
        const beats = span.duration / firstOf(meter.beats).duration;
        if (beats <= (BY_NAME[span.kind] ?? usual(part, span))) return [];
        const held = index > 0 ? `is held into ${chord.symbol}, where it is` : `under ${chord.symbol} is`;
        const kind = span.kind === "outside" || span.kind === "tension" ? "" : ` (${KIND_WORDS[span.kind]})`;
        const role = ROLE_WORDS[span.role] ?? span.role;
        const how = `${held} the ${role}${kind}, for ${beatsText(meter, span.duration)}`;
        return [{ part, note, span, index, how }];
      }),
    );
  return together(found);
}

/** A note that stays outside too long, and what it does there. */
export interface Foreign {
  part: { id: string; name: string; notes: readonly RealizedNote[] };
  note: RealizedNote;
  span: RoleSpan;
  index: number;
  how: string;
}

/** The same tone at the same time in several parts is one matter, whatever its octave. */
function together(found: readonly Foreign[]): [Foreign, ...Foreign[]][] {
  const groups = new Map<string, [Foreign, ...Foreign[]]>();
  for (const f of found) {
    const same = [f.span.start, f.span.duration, mod(f.note.midi, 12), f.how].join();
    const group = groups.get(same);
    if (group) group.push(f);
    else groups.set(same, [f]);
  }
  return [...groups.values()];
}

function foundOf(ctx: CheckContext, same: readonly [Foreign, ...Foreign[]]): RawFinding {
  const [{ part, note, span, how }] = same;
  const each = same.map((f) => waysFrom(ctx, f.part.id, f.note, f));
  const firsts = each.flatMap((ways) => ways[0] ?? []);
  const all: Fix[] =
    firsts.length === same.length
      ? [
          {
            label: firsts.map((x) => x.label).join("; "),
            edit: { do: "all", label: "all", edits: firsts.map((x) => x.edit) },
          },
        ]
      : [];
  const names = new Set(same.map((f) => f.part.name));
  const pitches = new Set(same.map((f) => f.note.pitch));
  return {
    tick: span.start,
    duration: span.duration,
    parts: [...new Set(same.map((f) => f.part.id))],
    notes: same.map((f) => f.note.id),
    chances: same.reduce((sum, f) => sum + f.part.notes.length, 0),
    fixes: same.length > 1 ? all : firstOf(each),
    amount: beatsText(ctx.meter, span.duration),
    message:
      same.length > 1
        ? `${listed([...names])}: ${pitches.size > 1 ? noteOf(note.pitch) : note.pitch} ${how}.`
        : `${part.name}: ${note.pitch} ${how}${against(ctx, note, span.start)}.`,
  };
}

/** What a foreign note rubs against as it begins to be one: ", against B3 of Voice". */
function against({ song, sliced }: CheckContext, note: RealizedNote, tick: Ticks): string {
  const around = sliceAt(sliced.slices, tick)?.notes ?? [];
  const rubbed = around.filter((n) => n.part !== note.part && isRub(n.note.midi, note.midi));
  const names = rubbed.map((n) => `${n.note.pitch} of ${song.parts.find((p) => p.id === n.part)?.name ?? n.part}`);
  return names.length ? `, against ${listed(names)}` : "";
}

/**
 * What is done about a note from one of its spans on: end it where the chord changes, or move it, or its rest, to the
 * nearest tones of the chord.
 */
function waysFrom(
  ctx: CheckContext,
  part: string,
  note: RealizedNote,
  { span, index }: { span: RoleSpan; index: number },
): Fix[] {
  const { song, section, meter } = ctx;
  const change = (edit: { duration?: number; pitch?: string }): Edit => ({
    do: "changeNotes",
    section: section.id,
    part,
    notes: [{ id: note.id, ...edit }],
  });
  const fixes: Fix[] = [];
  const until = span.start - note.start;
  if (until > 0)
    fixes.push({ label: `End it at ${positionText(meter, span.start)}`, edit: change({ duration: until }) });
  const pcs = chordPitchClasses(sure(sure(span.chord).chord));
  if (index === 0) {
    const moved = waysOut(ctx, { notes: [note], clear: (p) => pcs.includes(mod(p(note), 12)) });
    return [...fixes, ...moved];
  }
  const midi = [1, -1, 2, -2, 3, -3].map((d) => note.midi + d).find((m) => pcs.includes(mod(m, 12)));
  if (midi === undefined) return fixes;
  // Only the held part moves: the note ends at the change and its neighbor continues.
  const pitch = spellAt(song, section, span.start, midi);
  const { start, duration } = span;
  const on: Edit = {
    do: "addNote",
    section: section.id,
    part,
    note: { start, duration, pitch, velocity: note.velocity },
  };
  fixes.push({
    label: `Resolve to ${pitch} there`,
    edit: { do: "all", label: "resolve", edits: [change({ duration: until }), on] },
  });
  return fixes;
}
