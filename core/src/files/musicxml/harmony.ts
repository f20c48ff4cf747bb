import { sure } from "../../base/list";
import { parseNote, type NoteName } from "../../theory/pitch/pitch";
import type { Chord } from "../../theory/chord/chord";
import { el, type Element } from "./xml";

/** Kinds of chords as the format names them, by the roles of their tones without the root. */
const KINDS: readonly [kind: string, roles: readonly string[]][] = [
  ["major-13th", ["3", "5", "7", "9", "11", "13"]],
  ["dominant-13th", ["3", "5", "b7", "9", "11", "13"]],
  ["minor-13th", ["b3", "5", "b7", "9", "11", "13"]],
  ["dominant-13th", ["3", "5", "b7", "9", "13"]],
  ["major-13th", ["3", "5", "7", "9", "13"]],
  ["minor-13th", ["b3", "5", "b7", "9", "13"]],
  ["minor-11th", ["b3", "5", "b7", "9", "11"]],
  ["dominant-11th", ["3", "5", "b7", "9", "11"]],
  ["major-ninth", ["3", "5", "7", "9"]],
  ["dominant-ninth", ["3", "5", "b7", "9"]],
  ["minor-ninth", ["b3", "5", "b7", "9"]],
  ["half-diminished", ["b3", "b5", "b7"]],
  ["diminished-seventh", ["b3", "b5", "bb7"]],
  ["major-minor", ["b3", "5", "7"]],
  ["augmented-seventh", ["3", "#5", "b7"]],
  ["major-seventh", ["3", "5", "7"]],
  ["dominant", ["3", "5", "b7"]],
  ["minor-seventh", ["b3", "5", "b7"]],
  ["major-sixth", ["3", "5", "6"]],
  ["minor-sixth", ["b3", "5", "6"]],
  ["augmented", ["3", "#5"]],
  ["diminished", ["b3", "b5"]],
  ["suspended-second", ["2", "5"]],
  ["suspended-fourth", ["4", "5"]],
  ["major", ["3", "5"]],
  ["minor", ["b3", "5"]],
  ["power", ["5"]],
];

const alterOf = (name: NoteName): number => sure(parseNote(name)).alter;
const note = (tag: "root" | "bass", name: NoteName): Element =>
  el(tag, [el(`${tag}-step`, name[0]), alterOf(name) !== 0 && el(`${tag}-alter`, alterOf(name))]);

/**
 * The kind with which most of a chord is said, and the tones it leaves to be said apart: added, altered or left out.
 */
export function kindOf(chord: Chord): {
  kind: string;
  degrees: { value: number; alter: number; type: "add" | "alter" | "subtract" }[];
} {
  const tones = chord.tones.filter((t) => t.degree !== 1);
  const roles = tones.map((t) => t.role);
  // Roles the chord has count for a kind, those it lacks against it.
  const score = ([, has]: (typeof KINDS)[number]) =>
    has.filter((r) => roles.includes(r)).length -
    2.1 * has.filter((r) => !roles.includes(r)).length -
    (has.includes("5") && !roles.includes("5") ? -1 : 0);
  const [kind, has] = KINDS.reduce((best, k) => (score(k) > score(best) ? k : best));
  const degrees = tones
    .filter((t) => !has.includes(t.role))
    .map((t) => {
      const fifth = t.degree === 5 && has.includes("5");
      return { value: t.degree, alter: t.alter, type: fifth ? ("alter" as const) : ("add" as const) };
    });
  const left = has
    .filter((r) => !roles.includes(r) && !tones.some((t) => r.endsWith(String(t.degree))))
    .map((r) => ({ value: Number(r.replace(/[#b]/g, "")), alter: 0, type: "subtract" as const }));
  return { kind, degrees: [...degrees, ...left] };
}

/** A chord symbol; without a chord "N.C.". */
export function harmony(chord: Chord | null, offset: number): Element {
  if (!chord)
    return el("harmony", [
      el("root", [el("root-step", "C", { text: "" })]),
      el("kind", "none", { text: "N.C." }),
      offset > 0 && el("offset", offset),
    ]);
  const { kind, degrees } = kindOf(chord);
  return el("harmony", [
    note("root", chord.root),
    el("kind", kind, { text: chord.quality }),
    chord.bass !== undefined && note("bass", chord.bass),
    ...degrees.map((d) =>
      el("degree", [el("degree-value", d.value), el("degree-alter", d.alter), el("degree-type", d.type)]),
    ),
    offset > 0 && el("offset", offset),
  ]);
}
