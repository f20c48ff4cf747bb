import { mod } from "../../pitch/pitch";
import { QUARTER, type Ticks } from "../../time/meter";
import { instrumentOf, type Instrument } from "../../instrument/instruments";
import { DRUM_KINDS } from "../../instrument/drums";
import { legendOf } from "../../notation/percussion";
import { engraveForm, STEPS, writtenChord, type EngravedPass, type EngravedStaff } from "../../notation/engrave";
import { realize, type RealizedChord, type RealizedSection, type RealizedSong } from "../../song/realize";
import type { Part, Song } from "../../song/schema";
import { harmony } from "./harmony";
import { backup, notesOf } from "./notes";
import { el, writeXml, type Element } from "./xml";

const DOCTYPE =
  '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 3.1 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">';

const CLEFS: Record<EngravedStaff["clef"], [sign: string, line: number]> = {
  treble: ["G", 2],
  bass: ["F", 4],
  alto: ["C", 3],
  tenor: ["C", 4],
  percussion: ["percussion", 2],
};
const MODES = new Set(["major", "minor", "dorian", "phrygian", "lydian", "mixolydian", "locrian"]);

/** A part of the score: what is read, and who reads it. */
interface Written {
  part: Part;
  instrument: Instrument;
  passes: EngravedPass[];
  lyrics: Map<string, readonly string[]>;
  /** Drums that are played, with their places in the score and their notes in General MIDI. */
  drums: { drum: string; title: string; note: number }[] | null;
}

/**
 * The song as MusicXML 3.1, score-partwise, every pass written out: parts as their players read them, voices, ties, triplets, beams, articulations, words, chord
 * symbols over the first part, keys, meters, tempo, names of sections, drums on a percussion staff. Muted parts are included. A quarter has 480 divisions.
 */
export function writeMusicXml(song: Song): string {
  const real = realize(song);
  const written = song.parts.flatMap((part): Written[] => {
    const notes = real.parts.find((p) => p.id === part.id)?.notes ?? [];
    const passes = engraveForm(song, real, part.id);
    const drums =
      part.role === "drums" ? legendOf(real.hits).map(({ drum, title }) => ({ drum, title, note: DRUM_KINDS[drum].note })) : null;
    if (!passes.ok || !(drums ?? notes).length) return [];
    const lyrics = new Map(
      notes.flatMap((n) => (n.lyrics?.length ? [[n.id, n.lyrics] as const] : n.lyric ? [[n.id, [n.lyric]] as const] : [])),
    );
    return [{ part, instrument: instrumentOf(part.instrument, song), passes: passes.value, lyrics, drums }];
  });
  const upbeat = longestPickup(written);
  return writeXml(
    el(
      "score-partwise",
      [
        el("work", [el("work-title", song.title)]),
        el(
          "part-list",
          written.flatMap((w, i) => scorePart(w, i)),
        ),
        ...written.map((w, i) => el("part", measures(real, w, { index: i, upbeat }), { id: `P${i + 1}` })),
      ],
      { version: "3.1" },
    ),
    DOCTYPE,
  );
}

const drumId = (i: number, k: number): string => `P${i + 1}-D${k + 1}`;

function scorePart({ part, instrument, drums }: Written, i: number): Element[] {
  if (drums)
    return [
      el(
        "score-part",
        [
          el("part-name", part.name),
          ...drums.map((d, k) => el("score-instrument", [el("instrument-name", d.title)], { id: drumId(i, k) })),
          ...drums.map((d, k) =>
            el("midi-instrument", [el("midi-channel", 10), el("midi-program", 1), el("midi-unpitched", d.note + 1)], { id: drumId(i, k) }),
          ),
        ],
        { id: `P${i + 1}` },
      ),
    ];
  return pitchedPart(part, instrument, i);
}

const pitchedPart = (part: Part, instrument: Instrument, i: number): Element[] => [
  el(
    "score-part",
    [
      el("part-name", part.name),
      el("score-instrument", [el("instrument-name", instrument.title)], { id: `P${i + 1}-I1` }),
      el("midi-instrument", [el("midi-channel", (i % 16) + 1 === 10 ? 16 : (i % 16) + 1), el("midi-program", instrument.program + 1)], {
        id: `P${i + 1}-I1`,
      }),
    ],
    { id: `P${i + 1}` },
  ),
];

function measures(real: RealizedSong, written: Written, { index, upbeat }: { index: number; upbeat: Ticks }): Element[] {
  const first = index === 0;
  const out: Element[] = [];
  const held: Held = new Map();
  const drums = written.drums && new Map(written.drums.map((d, k) => [d.drum, drumId(index, k)]));
  let number = 1;
  written.passes.forEach((pass, p) => {
    const section = real.sections[p]!;
    const before = written.passes[p - 1];
    const opening = p === 0;
    const changed = opening || attributesKey(before!, real.sections[p - 1]!) !== attributesKey(pass, section);
    if (opening && upbeat)
      out.push(
        el("measure", [attributes(written, pass, section), ...bar(written, pass, -1, held, drums, upbeat)], { number: 0, implicit: "yes" }),
      );
    for (let k = 0; k < pass.bars; k++) {
      const from = section.start + k * section.meter.bar;
      const head = k === 0 && (opening ? !upbeat : changed) ? [attributes(written, pass, section)] : [];
      const signs = k === 0 ? directions(section, real.sections[p - 1], first) : [];
      const symbols = first
        ? real.chords.filter((c) => c.start >= from && c.start < from + section.meter.bar).map((c) => symbol(c, from, written.instrument))
        : [];
      out.push(el("measure", [...head, ...signs, ...symbols, ...bar(written, pass, k, held, drums)], { number: number++ }));
    }
    held.clear();
  });
  return out;
}

type Held = Map<string, { pitches: Set<number>; sung: string[] }>;

/** All parts begin with the longest upbeat. */
const longestPickup = (written: readonly Written[]): Ticks =>
  Math.max(0, ...written.flatMap((w) => w.passes[0]?.staves.map((s) => s.pickup.reduce((sum, c) => sum + c.ticks, 0)) ?? []));

/** One bar of all staves and voices; with `upbeat`, the pickup, filled up with rests to that length. */
function bar(
  { lyrics }: Written,
  pass: EngravedPass,
  k: number,
  held: Held,
  drums: ReadonlyMap<string, string> | null,
  upbeat: Ticks = 0,
): Element[] {
  const many = pass.staves.length > 1;
  return pass.staves.flatMap((staff, s) => {
    const voices = k < 0 ? [staff.pickup, []] : [staff.measures[k]!, staff.second[k]!];
    return voices.flatMap((chords, v): Element[] => {
      if (k >= 0 && !chords.length) return [];
      if (k < 0 && v > 0) return [];
      const id = `${s}.${v}`;
      const state = held.get(id) ?? { pitches: new Set<number>(), sung: [] };
      held.set(id, state);
      const voice = { number: s * 4 + v + 1, staff: many ? s + 1 : null, octave: -staff.octave, lyrics, drums };
      const lengthOf = chords.reduce((sum, c) => sum + c.ticks, 0);
      const silent = k < 0 ? upbeat - lengthOf : 0;
      const rest =
        silent > 0
          ? [
              el(
                "note",
                [el("rest"), el("duration", silent), el("voice", voice.number), voice.staff !== null && el("staff", voice.staff)],
                { "print-object": "no" },
              ),
            ]
          : [];
      const first = s === 0 && v === 0;
      return [
        ...(first ? [] : [backup(k < 0 ? upbeat : lengthOf)]),
        ...rest,
        ...notesOf(chords, pass.meter, voice, state.pitches, state.sung),
      ];
    });
  });
}

const attributesKey = (pass: EngravedPass, section: RealizedSection): string =>
  `${pass.key.signature} ${pass.key.mode} ${section.meter.text}`;

function attributes({ instrument }: Written, pass: EngravedPass, { meter }: RealizedSection): Element {
  const many = pass.staves.length > 1;
  const { transposition } = instrument;
  const octaveClef = pass.staves[0]!.octave !== 0;
  const up = mod(-transposition, 12);
  const transpose =
    transposition === 0 || octaveClef
      ? null
      : el("transpose", [
          el("diatonic", -STEPS[up]!),
          el("chromatic", -up),
          transposition !== -up && el("octave-change", (transposition + up) / 12),
        ]);
  return el("attributes", [
    el("divisions", QUARTER),
    el("key", [el("fifths", pass.key.signature), MODES.has(pass.key.mode) && el("mode", pass.key.mode)]),
    el("time", [el("beats", meter.count), el("beat-type", meter.unit)]),
    many && el("staves", pass.staves.length),
    ...pass.staves.map((s, i) => {
      const [sign, line] = CLEFS[s.clef];
      return el(
        "clef",
        [el("sign", sign), el("line", line), s.octave !== 0 && el("clef-octave-change", s.octave)],
        many ? { number: i + 1 } : {},
      );
    }),
    transpose,
  ]);
}

/** The name of a section, its tempo where that changes, and the feel. */
function directions(section: RealizedSection, before: RealizedSection | undefined, first: boolean): Element[] {
  if (!first) return [];
  const words = (type: Element) => el("direction", [el("direction-type", [type])], { placement: "above" });
  const feel = section.swing.ratio > 0.54 ? (section.swing.unit === 16 ? "swung sixteenths" : "swung eighths") : null;
  const same = before && before.tempo === section.tempo && before.swing.ratio === section.swing.ratio;
  return [
    words(el("rehearsal", section.name)),
    ...(same
      ? []
      : [
          el(
            "direction",
            [
              el("direction-type", [
                el("metronome", [el("beat-unit", "quarter"), el("per-minute", Math.round(section.tempo * 100) / 100)]),
              ]),
              el("sound", [], { tempo: section.tempo }),
            ],
            { placement: "above" },
          ),
          ...(feel ? [words(el("words", feel))] : []),
        ]),
  ];
}

/** A chord symbol as the part's player reads it. */
const symbol = (c: RealizedChord, bar: Ticks, { transposition }: Instrument): Element =>
  harmony(c.chord && writtenChord(c.chord, transposition), c.start - bar);
