import { firstOf } from "../../../../base/list";
import type { Edit } from "../../../../song/edits";
import { isUnlike } from "../../../../song/passView";
import { passPlace } from "../../../../song/place";
import type { Pass } from "../../../../song/schema";
import type { RealizedNote, RealizedSong } from "../../../../song/realize";
import type { CheckContext, Fix, RawFinding } from "../../rule";

/** The end of a section and the beginning of what follows it in the form. */
export interface Seam {
  /** The pass that ends, and the one that follows. */
  pass: Pass;
  next: Pass;
  /** Both realized alone, from tick 0, as they sound. */
  before: RealizedSong;
  after: RealizedSong;
  /** Tick of the section that ends at which the other begins, and the names of what ends and what follows. */
  at: number;
  from: string;
  into: string;
  /** The section has this pass alone: what is mended at its end is mended in it. */
  only: boolean;
}

const nameOf = ({ song }: CheckContext, pass: Pass): string =>
  pass.name ?? song.sections.find((s) => s.id === pass.sectionId)?.name ?? "the section";

/**
 * How the passes of a section go on, each way once: as they are played, with their own bars, in their own key, without
 * the parts that are out.
 */
export function seamsOf(ctx: CheckContext): Seam[] {
  const { song, section, meter } = ctx;
  const seen = new Set<string>();
  const times = song.form.filter((p) => p.sectionId === section.id);
  return song.form.flatMap((pass, i): Seam[] => {
    const next = song.form[i + 1];
    if (pass.sectionId !== section.id || !next) return [];
    const to = Math.min(pass.bars?.[1] ?? section.bars, section.bars);
    // Two passes that are moved alike sound alike at their seam.
    const plain = (p: Pass, key: number) =>
      p.own || p.playing || p.muted || p.bars ? passPlace(song, p.id) : `${p.sectionId} ${key}`;
    const id = `${plain(pass, 0)} ${plain(next, (next.transpose ?? 0) - (pass.transpose ?? 0))}`;
    if (seen.has(id)) return [];
    seen.add(id);
    const name = nameOf(ctx, next);
    const time = times.length > 1 && pass.name === undefined ? ` (time ${times.indexOf(pass) + 1})` : "";
    return [
      {
        pass,
        next,
        only: times.length === 1,
        before: ctx.pass(pass.id),
        after: ctx.pass(next.id),
        at: to * meter.bar,
        from: `${nameOf(ctx, pass)}${isUnlike(pass) ? time : ""}`,
        into: next.sectionId === section.id && !next.name ? `${name} again` : name,
      },
    ];
  });
}

/**
 * What is found at a seam stands in the pass that ends: that is where it is mended, and there alone where the section
 * is played at other times too.
 */
export function atSeam({ pass, only }: Seam, found: RawFinding): RawFinding {
  const fixes = found.fixes.map((f): Fix => {
    if (f.edit.do === "inPass" || (only && !isUnlike(pass))) return f;
    return only
      ? { ...f, edit: inPass(pass, f.edit) }
      : { label: `${f.label}, in this pass alone`, edit: inPass(pass, f.edit, true) };
  });
  return { ...found, fixes, pass: pass.id };
}

/** An edit of a section as one of a pass. */
export const inPass = (pass: Pass, edit: Edit, here = false): Edit => ({
  do: "inPass",
  pass: pass.id,
  ...(here ? { here: true } : {}),
  edit,
});

/**
 * The last note of a part before the seam and its first after it (a pickup begins before), where it goes straight on;
 * times are those of the section.
 */
export function acrossSeam(
  ctx: CheckContext,
  { before, after, at, pass }: Seam,
  part: string,
): { last: RealizedNote; first: RealizedNote } | null {
  const offset = (pass.bars?.[0] ?? 0) * ctx.meter.bar;
  const last = before.parts.find((p) => p.id === part)?.notes.at(-1);
  const first = after.parts.find((p) => p.id === part)?.notes[0];
  if (!last || !first) return null;
  const gap = at + first.start - (last.start + offset + last.duration);
  return gap < firstOf(ctx.meter.beats).duration ? { last: { ...last, start: last.start + offset }, first } : null;
}
