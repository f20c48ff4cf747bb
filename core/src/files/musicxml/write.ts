import { firstOf, nth, sure } from "../../base/list";
import type { Ticks } from "../../theory/time/meter";
import { feelText } from "../../theory/time/swing";
import { instrumentOf, type Instrument } from "../../theory/instrument/instruments";
import { DRUM_KINDS } from "../../theory/instrument/drums";
import { legendOf } from "../notation/percussion";
import { engraveForm, type EngravedPass } from "../notation/engrave";
import { writtenChord } from "../notation/reading";
import { voicesIn, type EngravedChord } from "../notation/staff";
import { tablatureAt, type Tablature } from "../notation/tab";
import { neckOf } from "../../theory/instrument/neck";
import type { Neck } from "../../theory/instrument/fretboard";
import { realize, type RealizedChord, type RealizedSection, type RealizedSong } from "../../song/realize";
import type { Place } from "../../song/place";
import type { Part, Song } from "../../song/schema";
import { attributes, attributesKey, openLines, readingSigns } from "./attributes";
import { harmony } from "./harmony";
import { backup, noteElements, type Going, type Voice } from "./notes";
import { el, writeXml, type Element } from "./xml";

const DOCTYPE =
  '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 3.1 Partwise//EN" ' +
  '"http://www.musicxml.org/dtds/partwise.dtd">';

/** A part of the score: what is read, and who reads it. */
interface Written {
  part: Part;
  instrument: Instrument;
  passes: EngravedPass[];
  /** The neck of a fretted part, and its tablature pass by pass. */
  neck: Neck | null;
  tabs: Tablature[];
  /** Drums that are played, with their places in the score and their notes in General MIDI. */
  drums: { drum: string; title: string; note: number }[] | null;
}

/**
 * The song as MusicXML 3.1, score-partwise, every pass written out: parts as their players read them, voices, ties,
 * triplets, beams, articulations, words, chord symbols over the first part, keys, meters, tempo, names of sections,
 * drums on a percussion staff. Muted parts are included. A quarter has 480 divisions.
 */
export function writeMusicXml(song: Song): string {
  const real = realize(song);
  const written = song.parts.flatMap((part): Written[] => {
    const notes = real.parts.find((p) => p.id === part.id)?.notes ?? [];
    const passes = engraveForm(song, real, part.id);
    const drums =
      part.role === "drums"
        ? legendOf(real.hits).map(({ drum, title }) => ({ drum, title, note: DRUM_KINDS[drum].note }))
        : null;
    if (!passes.ok || !(drums ?? notes).length) return [];
    const instrument = instrumentOf(part.instrument, song);
    const { capo, tuning } = part.playing.voicing ?? {};
    const neck = (part.role !== "drums" && neckOf(instrument, capo, tuning)) || null;
    const tabs = passes.value.flatMap((p) => tablatureAt(song, passOfForm(p.pass), part, firstOf(p.staves)) ?? []);
    return [{ part, instrument, passes: passes.value, neck, tabs, drums }];
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

const passOfForm = (id: string): Place => ({ kind: "pass", id });

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
            el("midi-instrument", [el("midi-channel", 10), el("midi-program", 1), el("midi-unpitched", d.note + 1)], {
              id: drumId(i, k),
            }),
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
      el(
        "midi-instrument",
        [el("midi-channel", (i % 16) + 1 === 10 ? 16 : (i % 16) + 1), el("midi-program", instrument.program + 1)],
        {
          id: `P${i + 1}-I1`,
        },
      ),
    ],
    { id: `P${i + 1}` },
  ),
];

function measures(
  real: RealizedSong,
  written: Written,
  { index, upbeat }: { index: number; upbeat: Ticks },
): Element[] {
  const first = index === 0;
  const out: Element[] = [];
  const goings: Goings = new Map();
  const drums = written.drums && new Map(written.drums.map((d, k) => [d.drum, drumId(index, k)]));
  const many = firstOf(written.passes).staves.length > 1 || written.neck !== null;
  let number = 1;
  written.passes.forEach((pass, p) => {
    const section = nth(real.sections, p);
    const before = written.passes[p - 1];
    const opening = p === 0;
    const changed = opening || attributesKey(sure(before), nth(real.sections, p - 1)) !== attributesKey(pass, section);
    if (opening && upbeat)
      out.push(
        el("measure", [attributes(written, pass, section), ...bar(written, p, { k: -1, goings, drums, upbeat })], {
          number: 0,
          implicit: "yes",
        }),
      );
    for (let k = 0; k < pass.bars; k++) {
      const from = section.start + k * section.meter.bar;
      const signed = readingSigns(pass, k, many);
      let head: Element[];
      if (k === 0 && (opening ? !upbeat : changed)) head = [attributes(written, pass, section)];
      else if (signed.clefs.length) head = [el("attributes", signed.clefs)];
      else head = [];
      const signs = k === 0 ? directions(section, real.sections[p - 1], first) : [];
      const symbols = first
        ? real.chords
            .filter((c) => c.start >= from && c.start < from + section.meter.bar)
            .map((c) => symbol(c, from, written.instrument))
        : [];
      const closing = k === pass.bars - 1 ? openLines(pass, k, many) : [];
      out.push(
        el(
          "measure",
          [...head, ...signs, ...signed.lines, ...symbols, ...bar(written, p, { k, goings, drums }), ...closing],
          {
            number: number++,
          },
        ),
      );
    }
    goings.clear();
  });
  return out;
}

/** What goes on over the bar line, voice by voice. */
type Goings = Map<string, Going>;

/** All parts begin with the longest upbeat. */
const longestPickup = (written: readonly Written[]): Ticks =>
  Math.max(
    0,
    ...written.flatMap((w) => w.passes[0]?.staves.map((s) => s.pickup.reduce((sum, c) => sum + c.ticks, 0)) ?? []),
  );

/** One bar of all staves and voices, tablature last; with `upbeat`, the pickup, filled up with rests to that length. */
function bar(
  written: Written,
  p: number,
  {
    k,
    goings,
    drums,
    upbeat = 0,
  }: { k: number; goings: Goings; drums: ReadonlyMap<string, string> | null; upbeat?: Ticks | undefined },
): Element[] {
  const pass = nth(written.passes, p);
  const tab = written.tabs[p];
  const many = pass.staves.length > 1 || tab !== undefined;
  const out: Element[] = [];
  const add = (chords: readonly EngravedChord[], voice: Omit<Voice, "drums">, next: EngravedChord | undefined) => {
    const id = String(voice.number);
    const going = goings.get(id) ?? { held: new Set<number>(), sliding: false };
    goings.set(id, going);
    const lengthOf = chords.reduce((sum, c) => sum + c.ticks, 0);
    const silent = k < 0 ? upbeat - lengthOf : 0;
    if (out.length) out.push(backup(k < 0 ? upbeat : lengthOf));
    if (silent > 0)
      out.push(
        el(
          "note",
          [
            el("rest"),
            el("duration", silent),
            el("voice", voice.number),
            voice.staff !== null && el("staff", voice.staff),
          ],
          {
            "print-object": "no",
          },
        ),
      );
    out.push(...noteElements(chords, pass.meter, { ...voice, drums }, { going, next }));
  };
  pass.staves.forEach((staff, s) => {
    const octave = -staff.octave - (staff.readings[Math.max(0, k)]?.shift ?? 0);
    voicesIn(staff, k).forEach((chords, v) => {
      const after = k + 1 < staff.measures.length ? voicesIn(staff, k + 1)[v]?.[0] : undefined;
      add(chords, { number: s * 4 + v + 1, staff: many ? s + 1 : null, octave }, after);
    });
    if (tab && s === 0)
      add(
        firstOf(voicesIn(staff, k)),
        {
          number: 5,
          staff: 2,
          octave,
          tab: { strings: tab.strings, moments: k < 0 ? tab.pickup : nth(tab.measures, k) },
        },
        undefined,
      );
  });
  return out;
}

/** The name of a section, its tempo where that changes, and the feel. */
function directions(section: RealizedSection, before: RealizedSection | undefined, first: boolean): Element[] {
  if (!first) return [];
  const words = (type: Element) => el("direction", [el("direction-type", [type])], { placement: "above" });
  const feel = feelText(section.swing);
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
