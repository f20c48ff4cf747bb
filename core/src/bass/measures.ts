import { beatsText, type Meter, type Ticks } from "../time/meter";
import { pitchName, plainName, type Midi } from "../pitch/pitch";
import type { BassReport, ReportLink, ToneUse } from "./report";
import type { BassSettings } from "./settings";
import type { BassStyle } from "./style";

/** One line of the report: what was measured, what the style and the settings aim at, and the notes it rests on. */
export interface Measure {
  id: string;
  title: string;
  value: string;
  /** In words; null where nothing is aimed at. */
  target: string | null;
  /** Null where nothing is aimed at. */
  met: boolean | null;
  notes: string[];
  /** Places that have no note to point at. */
  ticks: Ticks[];
}

const percent = (share: number): string => `${Math.round(share * 100)} %`;
/** A figure that comes back so often in a row asks for a change (common practice). */
export const MOST_REPEATS = 3;
/** Rhythm figures more alike than this are one figure. */
export const SAME_FIGURE = 0.85;

const used = (use: ToneUse): string => {
  const all = use.root + use.third + use.fifth + use.other;
  return all ? `root ${use.root}, fifth ${use.fifth}, third ${use.third}${use.other ? `, other ${use.other}` : ""}` : "none";
};

/** A report as lines to read. Targets are the style's, bent by the settings; each is a rule of thumb (common practice). */
export function measuresOf(report: BassReport, meter: Meter, style: BassStyle, settings: BassSettings): Measure[] {
  const { targets } = style;
  const beat = meter.beats[0]!.duration;
  const out: Measure[] = [];
  const row = (
    id: string,
    title: string,
    value: string,
    target: [text: string, met: boolean] | null,
    link?: ReportLink,
    ticks: Ticks[] = [],
  ) =>
    out.push({
      id,
      title,
      value,
      target: target && target[0],
      met: target && target[1],
      notes: link ? report.links[link] : [],
      ticks,
    });
  const { tune } = report;
  row(
    "chordTime",
    "Time on chord tones",
    report.chordTime === null ? "–" : percent(report.chordTime),
    targets.chordTime ? [`${percent(targets.chordTime)} or more`, (report.chordTime ?? 1) >= targets.chordTime - 1e-9] : null,
    "outside",
  );
  row(
    "longestOutside",
    "Longest other tone",
    report.longestOutside ? beatsText(meter, report.longestOutside) : "none",
    targets.longestOutside === null
      ? null
      : [
          `at most ${beatsText(meter, targets.longestOutside * beat)}; pedals and anticipations by name are excepted`,
          report.longestOutside <= targets.longestOutside * Math.max(...meter.beats.map((b) => b.duration)),
        ],
    "outside",
  );
  row(
    "accents",
    "Main kick accents met",
    `${report.accentsMet} of ${report.accents}`,
    settings.lock === "chords"
      ? null
      : ["all of them: a kick on a beat or clearly loud, or marked by you", report.accentsMet === report.accents],
    "missed",
    report.missed,
  );
  row(
    "offKick",
    "Notes off the kick",
    String(report.offKick),
    targets.offKick !== undefined && report.steadyKick
      ? [`at most ${percent(targets.offKick)} of the notes: a few give the hook`, report.offKick <= targets.offKick * report.notes]
      : null,
    "offKick",
  );
  row(
    "pitchClasses",
    "Pitches in a figure",
    String(report.pitchClasses),
    [`${settings.pitches} or fewer in one or two bars`, report.pitchClasses <= settings.pitches],
    "figure",
  );
  row(
    "silence",
    "Silence",
    percent(report.silence),
    targets.silence
      ? [
          `${percent(targets.silence[0])} to ${percent(targets.silence[1])}`,
          report.silence >= targets.silence[0] - 1e-9 && report.silence <= targets.silence[1] + 1e-9,
        ]
      : null,
  );
  row(
    "lengths",
    "Lengths",
    [
      [report.lengths.short, "short"],
      [report.lengths.middle, "middling"],
      [report.lengths.long, "long"],
    ]
      .filter(([n]) => n)
      .map(([n, word]) => `${n} ${word}`)
      .join(", ") || "–",
    null,
    report.links.short.length && report.links.short.length <= report.links.long.length ? "short" : "long",
  );
  row(
    "backbeats",
    "Backbeats left free",
    `${report.backbeatsFree} of ${report.backbeats}`,
    settings.gate === "cut" && report.backbeats
      ? ["all: notes end before a snare or clap", report.backbeatsFree === report.backbeats]
      : null,
    "backbeats",
  );
  row("syncopation", "Syncopation a bar", report.syncopation.toFixed(1), null, "syncopated");
  row(
    "approaches",
    "Approaches resolved",
    report.approaches ? `${report.approachesResolved} of ${report.approaches}` : "none",
    ["all: tones outside the chord leave by step", report.approachesResolved === report.approaches],
    "unresolved",
  );
  row("overMajor", "Over major chords", used(report.overMajor), null, "overMajor");
  row("overMinor", "Over minor chords", used(report.overMinor), null, "overMinor");
  if (targets.stepwise !== undefined || report.stepwise !== null)
    row(
      "stepwise",
      "Moves by step",
      report.stepwise === null ? "–" : percent(report.stepwise),
      targets.stepwise === undefined ? null : [`${percent(targets.stepwise)} or more`, (report.stepwise ?? 1) >= targets.stepwise - 1e-9],
      "leaps",
    );
  if (tune) {
    row(
      "tune",
      "Moves around the tune",
      `${tune.inGaps} in its gaps, ${tune.under} under it`,
      settings.melody
        ? ["no more under the tune than in its gaps; accents and new chords are not counted", tune.under <= Math.max(tune.inGaps, 2)]
        : null,
      "under",
    );
    row(
      "close",
      "Within the tune’s octave",
      String(tune.close),
      settings.melody ? ["none: an octave or more below the tune", tune.close === 0] : null,
      "close",
    );
  }
  row(
    "register",
    "Register",
    report.lowest === null || report.highest === null ? "–" : `${plain(report.lowest)} to ${plain(report.highest)}`,
    ["inside the range that is set", report.outOfRange === 0],
    "range",
  );
  row(
    "sounding",
    "Chords heard as others",
    report.sounding.length ? report.sounding.map((s) => `${s.symbol} as ${s.heard}`).join(", ") : "none",
    null,
    "sounding",
    report.sounding.map((s) => s.tick),
  );
  const nearest = [...report.likeness].sort((a, b) => b.share - a.share)[0];
  if (nearest)
    row(
      "likeness",
      "Rhythm figure like",
      `${nearest.name}, ${percent(nearest.share)}`,
      settings.ownFigure ? [`a figure of its own, under ${percent(SAME_FIGURE)}`, nearest.share < SAME_FIGURE] : null,
    );
  row(
    "repeats",
    "Same again in a row",
    report.repeats ? `${report.repeats} times` : "never",
    style.pedals ? null : [`at most ${MOST_REPEATS} times note for note`, report.repeats <= MOST_REPEATS],
    "repeats",
  );
  if (report.lastBarVaried !== null)
    row(
      "lastBar",
      "Last bar differs",
      report.lastBarVaried ? "yes" : "no",
      settings.turn ? ["the repetition ends differently", report.lastBarVaried] : null,
      "lastBar",
    );
  row(
    "reasons",
    "Notes without a reason",
    String(report.withoutReason),
    ["none: each is written for a reason, pinned, or justified by its place", report.withoutReason === 0],
    "withoutReason",
  );
  return out;
}

const plain = (midi: Midi): string => pitchName(midi, plainName(midi, true));
