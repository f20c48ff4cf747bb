import { firstOf, nth } from "../../base/list";
import { mod, plainName } from "../../theory/pitch/pitch";
import { QUARTER } from "../../theory/time/meter";
import type { Neck } from "../../theory/instrument/fretboard";
import type { Instrument } from "../../theory/instrument/instruments";
import type { EngravedPass } from "../notation/engrave";
import { LETTERS } from "../../theory/pitch/interval";
import type { StaffClef } from "../notation/staff";
import type { RealizedSection } from "../../song/realize";
import { el, type Element } from "./xml";

const CLEFS: Record<StaffClef, [sign: string, line: number]> = {
  treble: ["G", 2],
  bass: ["F", 4],
  alto: ["C", 3],
  tenor: ["C", 4],
  percussion: ["percussion", 2],
};
const MODES = new Set(["major", "minor", "dorian", "phrygian", "lydian", "mixolydian", "locrian"]);

/** Changes of clef, and lines of octaves that begin or end, at the beginning of a bar. */
export function readingSigns(pass: EngravedPass, k: number, many: boolean): { clefs: Element[]; lines: Element[] } {
  const clefs: Element[] = [];
  const lines: Element[] = [];
  pass.staves.forEach((staff, s) => {
    const [before, now] = [staff.readings[k - 1], staff.readings[k]];
    if (!now) return;
    if (before && before.clef !== now.clef) clefs.push(clefOf(now.clef, staff.octave, many ? s + 1 : null));
    const line = (type: string) =>
      lines.push(
        el("direction", [
          el("direction-type", [el("octave-shift", [], { type, size: 8, number: s + 1 })]),
          many && el("staff", s + 1),
        ]),
      );
    if ((before?.shift ?? 0) !== now.shift) {
      if (before?.shift) line("stop");
      // "Down": written an octave below where it sounds.
      if (now.shift) line(now.shift > 0 ? "down" : "up");
    }
  });
  return { clefs, lines };
}

const clefOf = (clef: StaffClef, octave: number, number: number | null): Element => {
  const [sign, line] = CLEFS[clef];
  return el(
    "clef",
    [el("sign", sign), el("line", line), octave !== 0 && el("clef-octave-change", octave)],
    number === null ? {} : { number },
  );
};

export const attributesKey = (pass: EngravedPass, section: RealizedSection): string =>
  `${pass.key.signature} ${pass.key.mode} ${section.meter.text} ` +
  `${pass.staves.map((s) => [s.clef, s.readings.at(-1)?.clef].join()).join(" ")}`;

/** A staff of tablature: its strings from the lowest, and the capo. */
const tabDetails = (neck: Neck): Element =>
  el(
    "staff-details",
    [
      el("staff-lines", neck.strings.length),
      ...neck.strings.map((midi, i) => {
        const name = plainName(midi, false);
        return el(
          "staff-tuning",
          [
            el("tuning-step", name[0]),
            name.length > 1 && el("tuning-alter", 1),
            el("tuning-octave", Math.floor(midi / 12) - 1),
          ],
          { line: i + 1 },
        );
      }),
      neck.capo > 0 && el("capo", neck.capo),
    ],
    { number: 2 },
  );

export function attributes(
  { instrument, neck }: { instrument: Instrument; neck: Neck | null },
  pass: EngravedPass,
  { meter }: RealizedSection,
): Element {
  const staves = pass.staves.length + (neck ? 1 : 0);
  const many = staves > 1;
  const { transposition } = instrument;
  const octaveClef = firstOf(pass.staves).octave !== 0;
  const up = mod(-transposition, 12);
  const transpose =
    transposition === 0 || octaveClef
      ? null
      : el("transpose", [
          el("diatonic", -nth(LETTERS, up)),
          el("chromatic", -up),
          transposition !== -up && el("octave-change", (transposition + up) / 12),
        ]);
  return el("attributes", [
    el("divisions", QUARTER),
    el("key", [el("fifths", pass.key.signature), MODES.has(pass.key.mode) && el("mode", pass.key.mode)]),
    el("time", [el("beats", meter.count), el("beat-type", meter.unit)]),
    many && el("staves", staves),
    ...pass.staves.map((s, i) => clefOf(s.readings[0]?.clef ?? s.clef, s.octave, many ? i + 1 : null)),
    neck && el("clef", [el("sign", "TAB"), el("line", neck.strings.length)], { number: 2 }),
    neck && tabDetails(neck),
    transpose,
  ]);
}

/** Lines of octaves end with their pass. */
export const openLines = (pass: EngravedPass, k: number, many: boolean): Element[] =>
  pass.staves.flatMap((staff, s) =>
    staff.readings[k]?.shift
      ? [
          el("direction", [
            el("direction-type", [el("octave-shift", [], { type: "stop", size: 8, number: s + 1 })]),
            many && el("staff", s + 1),
          ]),
        ]
      : [],
  );
