import type { RawFinding, Rule } from "../../rule";
import type { RealizedSong } from "../../../../song/realize";
import { sectionOf } from "../../../../song/document";
import type { Pass } from "../../../../song/schema";

/**
 * How near two sections may lie in register (semitones of the tune's middle), in busyness (attacks a bar) and in
 * loudness (velocity) to be one place (common practice).
 */
const REGISTER = 2;
const BUSY = 0.12;
const LOUD = 6;
const SUNG = 0.2;
const FEWEST_BARS = 4;

interface Sits {
  parts: string;
  tune: number;
  busy: number;
  loud: number;
  /** Share of the time in which the tune sounds. */
  sung: number;
}

export const sectionsAlike: Rule = {
  id: "sections-alike",
  title: "Two sections sit in one place",
  family: "form",
  explanation:
    "Two sections of different names have the same parts, the tune in the same register, as many attacks and " +
    "the same loudness: the second one does not lift. A higher tune, another layer, a busier or calmer rhythm, " +
    "or less before it, tells them apart.",
  source: "common practice of songwriting",
  severity: { chorale: "off", band: "note", jazz: "off", loop: "note" },
  heard: 0.7,
  find(ctx) {
    const { song, section, meter } = ctx;
    if (section.bars < FEWEST_BARS || section.copyOf !== undefined) return [];
    const { form } = song;
    const passes = form.filter((p) => p.sectionId === section.id);
    // Each pass against the one of another section that was heard last before it: the one that comes later is meant to
    // be different.
    let last: Pass | undefined;
    const pairs = form.flatMap((pass) => {
      if (pass.sectionId !== section.id) {
        last = pass;
        return [];
      }
      const before = last;
      const other = before && sectionOf(song, before.sectionId);
      if (!before || !other || other.copyOf !== undefined || other.bars < FEWEST_BARS) return [];
      const [here, there] = [sits(ctx.pass(pass.id)), sits(ctx.pass(before.id))];
      return here && there && alike(here, there) ? [{ pass, name: before.name ?? other.name }] : [];
    });
    const [first] = pairs;
    if (!first) return [];
    const times =
      pairs.length < passes.length
        ? `, ${pairs.map(({ pass }) => pass.name ?? `time ${passes.indexOf(pass) + 1}`).join(", ")},`
        : "";
    return [
      {
        tick: 0,
        duration: section.bars * meter.bar,
        parts: [],
        notes: [],
        message:
          `${section.name}${times} and the ${first.name} before it have the same parts, register, busyness and ` +
          "loudness.",
        amount: `like ${first.name}`,
        fixes: [],
      },
    ] satisfies RawFinding[];
  },
};

const alike = (a: Sits, b: Sits): boolean =>
  a.parts === b.parts &&
  Math.abs(a.tune - b.tune) <= REGISTER &&
  Math.abs(a.sung - b.sung) <= SUNG &&
  Math.abs(a.busy - b.busy) <= BUSY * Math.max(a.busy, b.busy) &&
  Math.abs(a.loud - b.loud) <= LOUD;

/** Where a section sits; null where it has no tune. */
function sits(real: RealizedSong): Sits | null {
  const playing = real.parts.filter((p) => p.notes.length);
  const tune = playing.find((p) => p.role === "melody") ?? playing.find((p) => p.role === "vocal");
  const notes = playing.flatMap((p) => p.notes);
  const bars = real.sections[0]?.bars;
  if (!tune || !bars || playing.length < 2) return null;
  const length = tune.notes.reduce((sum, n) => sum + n.duration, 0);
  return {
    parts: [...playing.map((p) => p.id), real.hits.length ? "drums" : ""].sort().join(),
    tune: tune.notes.reduce((sum, n) => sum + n.midi * n.duration, 0) / length,
    busy: (new Set(notes.map((n) => `${n.part}@${n.start}`)).size + real.hits.length) / bars,
    loud: notes.reduce((sum, n) => sum + n.velocity, 0) / notes.length,
    sung: length / real.duration,
  };
}
