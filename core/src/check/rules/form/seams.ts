import type { Pass } from "../../../song/schema";
import type { RealizedNote, RealizedSong } from "../../../song/realize";
import type { CheckContext } from "../../rule";

/** The end of a section and the beginning of what follows it in the form. */
export interface Seam {
  /** The pass that ends, and the one that follows. */
  pass: Pass;
  next: Pass;
  /** Both realized alone, from tick 0. */
  before: RealizedSong;
  after: RealizedSong;
  /** Tick of the section that ends at which the other begins, and the name of what follows. */
  at: number;
  into: string;
}

/** How the passes of a section go on, each way once. Passes that end early or have bars of their own at the end are judged as they are played. */
export function seamsOf(ctx: CheckContext): Seam[] {
  const { song, section, meter } = ctx;
  const seen = new Set<RealizedSong>();
  return song.form.flatMap((pass, i): Seam[] => {
    const next = song.form[i + 1];
    if (pass.sectionId !== section.id || !next) return [];
    const [before, after] = [ctx.pass(pass.id), ctx.pass(next.id)];
    const to = Math.min(pass.bars?.[1] ?? section.bars, section.bars);
    if (pass.own?.some((o) => o.bars[1] >= to) || pass.transpose || next.transpose) return [];
    if (seen.has(after) && !pass.bars) return [];
    seen.add(after);
    const name = next.name ?? song.sections.find((s) => s.id === next.sectionId)?.name ?? "what follows";
    const into = next.sectionId === section.id ? `${name} again` : name;
    return [{ pass, next, before, after, at: to * meter.bar, into }];
  });
}

/** The last note of a part before the seam and its first after it (a pickup begins before), where it goes straight on; times are those of the section. */
export function over(
  ctx: CheckContext,
  { before, after, at, pass }: Seam,
  part: string,
): { last: RealizedNote; first: RealizedNote } | null {
  const offset = (pass.bars?.[0] ?? 0) * ctx.meter.bar;
  const last = before.parts.find((p) => p.id === part)?.notes.at(-1);
  const first = after.parts.find((p) => p.id === part)?.notes[0];
  if (!last || !first) return null;
  const gap = at + first.start - (last.start + offset + last.duration);
  return gap < ctx.meter.beats[0]!.duration ? { last: { ...last, start: last.start + offset }, first } : null;
}
