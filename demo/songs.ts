import { firstOf, nth, sure } from "../core/src/base/list";
import { Bass, type Edit, Groove, Meter, must, Song, Vocal } from "../core/src/index";
import { arrange, breathing, build, drums, laidAlong, ledOn, otherEnding, range, tune } from "./tools";

/** Songs for the orchard's harvest-night concert: a small band and two singers. All invented. */

const EIGHTHS = "1:66 1.5:46 2:60 2.5:46 3:66 3.5:46 4:60 4.5:50";

function lanterns(): Song {
  const base = must(
    Song.create({
      id: "lanterns-on-row-nine",
      title: "Lanterns on Row Nine",
      key: "Eb major",
      tempo: 76,
      bars: 8,
      swing: { ratio: 0.54, unit: 8 },
    }),
  );
  const withChorus = build(base, [
    { do: "setPart", part: "melody", name: "Orla, voice", instrument: "mezzo" },
    { do: "setPart", part: "bass", instrument: "doubleBass" },
    { do: "setPlaying", part: "bass", bass: { style: "root-anchored", slides: "none" } },
    { do: "setPlaying", part: "keys", voicing: { register: -5 } },
    // In the verse the piano lies close and low, under the voice, and is played a step louder for it.
    { do: "setPlaying", part: "keys", section: "s1", voicing: { register: -14 }, dynamics: { steps: 1 } },
    {
      do: "setLine",
      section: "s1",
      line: "| Ebmaj9 | Cm7 | Fm9 | Bb9sus4 Bb7 | Gm7 | Cm7 Cm7/Bb | Abmaj7 Abm6 | Bb7sus4 Bb7 |",
    },
    { do: "addSection", name: "Chorus", bars: 8 },
  ]);
  const chorus = nth(withChorus.sections, 1).id;
  const lined = build(withChorus, [
    {
      do: "setLine",
      section: chorus,
      line: "| Abmaj9 | Bb/Ab | Gm7 C7(b9) | Fm9 Bb13 | Ebmaj9 Ebmaj9/D | Cm9 | Fm7 Bb7sus4 | Eb6/9 |",
    },
  ]);
  // Under the voice's G the piano takes the thirteenth along instead of its seventh, which would clash.
  const thirteenth = sure(nth(lined.sections, 1).chords.find((c) => c.symbol === "Bb13")).id;
  const song = arrange(
    build(lined, [
      { do: "pinVoicing", section: chorus, part: "keys", chord: thirteenth, pitches: ["Ab3", "D4", "F4", "G4"] },
      {
        do: "setNotes",
        section: "s1",
        part: "melody",
        notes: tune(
          "0:4 Bb3 .5 Hang, 0:4.5 Eb4 .5 a, 1:1 G4 1.5 light, 1:2.5 F4 .5 on, 1:3 G4 1 ev-, 1:4 Bb4 1 'ry, 2:1 " +
            "Bb4 1 low-, 2:2 G4 1 er, 2:3 Eb4 1.5 bough, 3:1 Ab4 1.5 nine, 3:2.5 G4 .5 rows, 3:3 F4 1 of, 3:4 " +
            "Eb4 1 them, 4:1 F4 2 glow-, 4:3 D4 1.5 ing, 5:1.5 D4 .5 and, 5:2 G4 .5 the, 5:2.5 Bb4 .5 lad-, 5:3 " +
            "D5 1.5 ders, 5:4.5 C5 .5 are, 6:1 C5 1 stand-, 6:2 Bb4 1 ing, 6:3 G4 1.5 now, 7:1 C5 1.5 wait-, " +
            "7:2.5 Bb4 .5 ing, 7:3 Cb5 1 for, 7:4 Ab4 1 the, 8:1 Bb4 2 snow-, 8:3 F4 1 ing",
        ),
      },
      {
        do: "setNotes",
        section: chorus,
        part: "melody",
        notes: tune(
          "1:1 C5 1.5 Bring, 1:2.5 Bb4 .5 the, 1:3 C5 1 last, 1:4 Eb5 1 of, 2:1 D5 2.5 it, 3:1 D5 1 down, 3:2 " +
            "Bb4 1 to, 3:3 Db5 1 the, 3:4 Bb4 1 long, 4:1 C5 1.5 ta-, 4:2.5 Ab4 .5 bles, 4:3 G4 1.5 and, 5:1 G4 " +
            "1 we'll, 5:2 Bb4 1 sing, 5:3 D5 1.5 it, 6:1 C5 1.5 till, 6:2.5 Bb4 .5 the, 6:3 G4 1.5 lights, 7:1 " +
            "Ab4 1 are, 7:2 G4 .5 on-, 7:2.5 Ab4 .5 ly, 7:3 F4 2 em-, 8:1 G4 2.5 bers",
        ),
      },
      ...["s1", chorus].flatMap((s) => [
        ...drums(s, "kick", range(1, 8), { pattern: "1:100 2.5:70 3:84" }),
        ...drums(s, "snare", range(1, 8), { pattern: "2:72 4:78" }),
        ...drums(s, "closedHat", range(1, 8), { pattern: EIGHTHS }),
        ...drums(s, "kick", [8], { pattern: "4.5:64" }),
      ]),
    ]),
    "root-anchored",
    3,
    false,
  );
  return withSecondSinger(song, chorus);
}

/** Two singers; the second one joins in the chorus, below the tune. */
function withSecondSinger(song: Song, chorus: string): Song {
  const both = build(song, [
    { do: "addPart", name: "Wren, voice", role: "vocal", instrument: "alto" },
    {
      do: "addSinger",
      name: "Orla",
      voice: "mezzo",
      part: "melody",
      comfortable: ["B3", "D5"],
      extremes: ["A3", "G5"],
    },
  ]);
  const wren = sure(both.parts.find((p) => p.name === "Wren, voice")).id;
  const ready = build(both, [
    { do: "movePart", part: wren, before: "keys" },
    { do: "addSinger", name: "Wren", voice: "alto", part: wren },
    { do: "setPlaying", part: wren, vocal: { school: "inScale", side: "below", interval: "third" } },
  ]);
  const [line] = must(Vocal.write(ready, { section: chorus, part: wren, lead: "melody" }));
  const sung = build(ready, [{ do: "setNotes", section: chorus, part: wren, notes: sure(line).notes }]);
  const verse = firstOf(sung.sections).id;
  // The second verse is without drums; the second chorus ends otherwise and leads into the last one, a whole tone
  // higher.
  const long = build(sung, [
    { do: "addPass", section: verse },
    { do: "addPass", section: chorus },
    { do: "addPass", section: chorus },
  ]);
  const whole = build(long, [
    { do: "setPass", pass: nth(long.form, 2).id, muted: [sure(sung.parts.find((p) => p.role === "drums")).id] },
    { do: "setPass", pass: nth(long.form, 4).id, name: "Last chorus", transpose: 2 },
  ]);
  return otherEnding(
    ledOn(laidAlong(whole), 3, false),
    nth(whole.form, 3).id,
    "| Abmaj9 | Bb/Ab | Gm7 C7(b9) | Fm9 Bb13 | Ebmaj9 Ebmaj9/D | Cm9 | Fm7 Bb7sus4 | F9sus4 F7 |",
    3,
  );
}

function cider(): Song {
  const base = must(
    Song.create({
      id: "cider-press-strut",
      title: "Cider Press Strut",
      key: "D minor",
      tempo: 102,
      bars: 8,
      swing: { ratio: 0.58, unit: 16 },
      profile: "loop",
    }),
  );
  const strut = arrange(
    build(base, [
      { do: "setPart", part: "melody", name: "Clarinet", instrument: "clarinet" },
      { do: "setPart", part: "keys", name: "Electric piano", instrument: "electricPiano" },
      { do: "setPlaying", part: "bass", bass: { style: "kick-locked" } },
      { do: "setSection", section: "s1", name: "Strut" },
      {
        do: "setLine",
        section: "s1",
        line: "| Dm9 | Gm7 | Bbmaj9 | A7sus4 A7 | Dm9 | Fmaj7/C | Bbmaj9 | Em7b5 A7(b9) |",
      },
      {
        do: "setNotes",
        section: "s1",
        part: "melody",
        notes: tune(
          "1:2.5 A4 .5, 1:3 C5 .5, 1:3.5 E5 1, 2:1 D5 1.5, 3:2.5 F4 .5, 3:3 A4 .5, 3:3.5 C5 1, 4:1 D5 1, 4:3 " +
            "C#5 1, 5:2.5 A4 .5, 5:3 C5 .5, 5:3.5 E5 .5, 5:4 F5 .5, 6:1 E5 1.5, 6:3 C5 .5, 6:3.5 A4 1, 7:2.5 F4 " +
            ".5, 7:3 A4 .5, 7:3.5 C5 1, 8:1 Bb4 1, 8:2 G4 1, 8:3 A4 1.5",
        ),
      },
      ...drums("s1", "kick", [1, 3, 5, 7], { pattern: "1:112 2.5:98 3.75:84" }),
      ...drums("s1", "kick", [2, 4, 6, 8], { pattern: "1:110 1.75:72 3.5:100" }),
      ...drums("s1", "clap", range(1, 8), { pattern: "2:96 4:100" }),
      ...drums("s1", "closedHat", range(1, 8), { pattern: "1:80 1.5:52 2:74 2.5:52 3:80 3.5:52 4:74" }),
      ...drums("s1", "openHat", range(1, 8), { pattern: "4.5:70" }),
    ]),
    "kick-locked",
    5,
    false,
  );
  // A loop three times: first without the clarinet, at last with the piano in eighths.
  const thrice = build(strut, [
    { do: "addPass", section: "s1" },
    { do: "addPass", section: "s1" },
  ]);
  return build(thrice, [
    { do: "setPass", pass: firstOf(thrice.form).id, name: "Vamp", muted: ["melody"] },
    { do: "setPass", pass: nth(thrice.form, 2).id, name: "Last strut" },
    { do: "setPlaying", part: "keys", pass: nth(thrice.form, 2).id, comp: { rhythm: "driving" } },
  ]);
}

/** A waltz for nylon guitar: shapes on the neck, chords after the downbeat, strings that play the top of them. */
function hayloft(): Song {
  const base = must(
    Song.create({
      id: "hayloft-waltz",
      title: "Hayloft Waltz",
      key: "G major",
      tempo: 118,
      meter: "3/4",
      bars: 8,
      profile: "band",
    }),
  );
  return arrange(
    build(base, [
      { do: "setPart", part: "melody", name: "Tam, voice", instrument: "tenor" },
      {
        do: "setPart",
        part: "keys",
        name: "Guitar",
        instrument: "nylonGuitar",
      },
      {
        do: "setPlaying",
        part: "keys",
        comp: { rhythm: "low-high", strum: 10, human: 6, seed: 2 },
        voicing: { register: 8 },
      },
      { do: "setPart", part: "bass", instrument: "doubleBass" },
      { do: "setPlaying", part: "bass", bass: { style: "root-fifth-octave" } },
      { do: "setSection", section: "s1", name: "Round" },
      { do: "setLine", section: "s1", line: "| Gmaj7 | Em7 | Am7 | D7sus4 | Bm7 | E7(b9) | Am9 | D7 |" },
      {
        do: "addPart",
        name: "Strings",
        role: "chords",
        instrument: "strings",
        link: { kind: "high", from: "keys" },
        playing: { comp: { notes: 1 } },
      },
      {
        do: "setNotes",
        section: "s1",
        part: "melody",
        notes: tune(
          "0:3 D3 1 Round, 1:1 G3 2 the, 1:3 B3 1 loft, 2:1 B3 1.5 the, 2:2.5 A3 .5 straw, 2:3 G3 1 is, 3:1 C4 " +
            "2 fall-, 3:3 B3 1 ing, 4:1 A3 2 down, 4:3 D3 1 and, 5:1 B3 1.5 all, 5:2.5 C#4 .5 of, 5:3 D4 1 us, " +
            "6:1 D4 2 turn, 6:3 B3 1 and, 7:1 C4 1 turn, 7:2 B3 1 a-, 7:3 A3 1 gain, 8:1 A3 2 now",
          3,
        ),
      },
      ...drums("s1", "kick", range(1, 8), { pattern: "1:98", beatsInBar: 3 }),
      ...drums("s1", "snare", range(1, 8), { pattern: "2:54 3:58", beatsInBar: 3 }),
    ]),
    "root-fifth-octave",
    7,
    false,
  );
}

/**
 * Bass and drums first: a stomp whose rim just misses the kick, a bass and a sub that share a line, and a half-time
 * section with a figure of its own.
 */
function shed(): Song {
  const base = must(
    Song.create({
      id: "sorting-shed-stomp",
      title: "Sorting Shed Stomp",
      key: "E minor",
      tempo: 112,
      bars: 8,
      swing: { ratio: 0.5, unit: 16 },
      profile: "loop",
    }),
  );
  const meter = must(Meter.parse("4/4"));
  const pattern = (id: string, bars: number): Edit[] => [
    {
      do: "setDrums",
      section: "s1",
      lanes: Groove.lanes(sure(Groove.PATTERNS.find((p) => p.id === id)), meter, bars),
    },
  ];
  let song = build(base, [
    { do: "setPart", part: "melody", name: "Vi, voice", instrument: "alto" },
    { do: "setPart", part: "keys", name: "Organ", instrument: "organ" },
    { do: "setPlaying", part: "keys", comp: { rhythm: "offbeats" } },
    { do: "setPlaying", part: "bass", bass: { style: "stab-bounce" } },
    { do: "setSection", section: "s1", name: "Shed" },
    { do: "setLine", section: "s1", line: "| Em7 | A9 | Em7 | A9 | Cmaj7 | Bm7 | Am7 | B7(#9) |" },
    ...pattern("breakbeat", 8),
    // The rim comes a sixteenth before the second kick.
    ...drums("s1", "rim", range(1, 8), { pattern: "1.25:100 3.75:96" }),
    { do: "addPart", name: "Sub", role: "bass", instrument: "subBass" },
    {
      do: "setNotes",
      section: "s1",
      part: "melody",
      notes: tune(
        "1:3 G4 .5 Red, 1:3.5 A4 .5 ones, 1:4 B4 1 left, 2:1 A4 1 and, 2:2 G4 1.5 right, 3:3 G4 .5 green, " +
          "3:3.5 A4 .5 ones, 3:4 B4 .5 fall, 4:1 A4 2.5 through, 5:2.5 B4 .5 count, 5:3 G4 1 them, 5:4 E4 1 by, " +
          "6:1 F#4 1 the, 6:2 D4 2 hun-, 7:1 E4 1 dred, 7:3 C4 1 to, 8:1 D#4 2.5 you",
      ),
    },
    { do: "addSection", name: "Tailgate", bars: 4 },
  ]);
  const tailgate = nth(song.sections, 1).id;
  song = build(song, [
    { do: "setLine", section: tailgate, line: "| Cmaj9 | D6 | Em9 | Em9 |" },
    {
      do: "setDrums",
      section: tailgate,
      lanes: Groove.lanes(sure(Groove.PATTERNS.find((p) => p.id === "half-time")), meter, 4),
    },
    {
      do: "setPlaying",
      part: "bass",
      section: tailgate,
      bass: { style: "arpeggio", ownFigure: true },
    },
  ]);
  song = laidAlong(song);
  const bass = (id: string): Edit => ({
    do: "setNotes",
    section: id,
    part: "bass",
    notes: firstOf(must(Bass.write(song, { section: id, part: "bass", seed: 2 }))).notes,
  });
  song = build(song, [bass(tailgate)]);
  // In the half-time section the sub carries the bass of every chord.
  const sub = sure(song.parts.find((p) => p.name === "Sub")).id;
  song = build(song, [
    sure(must(Bass.layerOffers(song, tailgate, "bass", sub)).find((o) => o.id === "turns-moves")).edit,
  ]);
  // The first section leads to what the bass has there.
  return build(song, [bass("s1")]);
}

/** The songs by their ids; each is written when it is asked for, which takes a second. */
export const DEMO: readonly { id: string; make(): Song }[] = [
  { id: "lanterns-on-row-nine", make: () => breathing(lanterns()) },
  { id: "cider-press-strut", make: () => breathing(cider()) },
  { id: "hayloft-waltz", make: () => breathing(hayloft()) },
  { id: "sorting-shed-stomp", make: () => breathing(shed()) },
];

export const demoSongs = (): Song[] => DEMO.map((song) => song.make());
