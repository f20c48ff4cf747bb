import { firstOf } from "../../../base/list";
import { byId } from "../../../base/once";
import type { Midi, PitchName } from "../../../theory/pitch/pitch";
import type { RealizedNote } from "../../../song/realize";
import type { Edit } from "../../../song/edits";
import { partOf } from "../../../song/document";
import { spellAt } from "../../../song/spell";
import type { CheckContext, Fix } from "../rule";

/** A note that would sound at another pitch. */
export interface Step {
  note: RealizedNote;
  midi: Midi;
}

/** Notes that would change together. */
export type Way = readonly Step[];

/** The fix that gives notes other pitches at once; a tone of a chord moves in its layout. Null where one cannot. */
export function moveAll(ctx: CheckContext, way: Way, label = labelOf(ctx, way)): Fix | null {
  const edits: Edit[] = [];
  for (const group of byPlayer(way)) {
    const edit = firstOf(group).note.chordId === undefined ? notesMoved(ctx, group) : toneMoved(ctx, group);
    if (!edit) return null;
    edits.push(edit);
  }
  const [only] = edits;
  return only ? { label, edit: edits.length === 1 ? only : { do: "all", label: "move notes", edits } } : null;
}

/** The fix that gives one note another pitch, where it can have one. */
export const moveNote = (ctx: CheckContext, note: RealizedNote, midi: Midi): Fix[] =>
  note.pinned ? [] : [moveAll(ctx, [{ note, midi }])].flatMap((fix) => fix ?? []);

/** Steps of one part together, and of each chord of it. */
function byPlayer(way: Way): Step[][] {
  const groups = new Map<string, Step[]>();
  for (const step of way) {
    const key = `${step.note.part}/${step.note.chordId ?? ""}`;
    groups.set(key, [...(groups.get(key) ?? []), step]);
  }
  return [...groups.values()];
}

const pitchOf = ({ song, section }: CheckContext, { note, midi }: Step): PitchName =>
  spellAt(song, section, Math.max(0, note.start), midi);

const notesMoved = (ctx: CheckContext, steps: readonly Step[]): Edit => ({
  do: "changeNotes",
  section: ctx.section.id,
  part: firstOf(steps).note.part,
  notes: steps.map((s) => ({ id: s.note.id, pitch: pitchOf(ctx, s) })),
});

function toneMoved(ctx: CheckContext, steps: readonly Step[]): Edit | null {
  const { section } = ctx;
  const { note } = firstOf(steps);
  const chord = byId(section.chords).get(note.chordId ?? "");
  let pitches = chord?.voicings?.[note.part]?.pitches;
  for (const step of steps) {
    const pitch = pitchOf(ctx, step);
    if (!pitches?.includes(step.note.pitch) || pitches.includes(pitch)) return null;
    pitches = [...pitches.filter((p) => p !== step.note.pitch), pitch];
  }
  return chord && pitches ? { do: "pinVoicing", section: section.id, part: note.part, chord: chord.id, pitches } : null;
}

/** "Alto: E4 to D4"; of several notes "Alto: E4 to D4; Bass: A2 to G2", "Alto: E4 to D4, then F4 to G4". */
function labelOf(ctx: CheckContext, way: Way): string {
  const parts = [...new Set(way.map((s) => s.note.part))];
  return parts
    .map((part) => {
      const [name = ""] = (partOf(ctx.song, part)?.name ?? "").split(",");
      const steps = way.filter((s) => s.note.part === part).sort((a, b) => a.note.start - b.note.start);
      const moves = steps.map((step, i) => {
        const before = steps[i - 1];
        const joined = before && (before.note.start < step.note.start ? ", then " : " and ");
        return `${joined ?? ""}${step.note.pitch} to ${pitchOf(ctx, step)}`;
      });
      return `${name}: ${moves.join("")}`;
    })
    .join("; ");
}
