import fc from "fast-check";
import { firstOf, Meter, must, type Part, Song, sure } from "../../core/src/index";
import { demoSongs } from "../../core/test/demos";
import { edit } from "../../core/test/helpers";
import { barsInSight, inSight, makeAxis, zoomForBars, zoomToFit } from "../score/axis";
import { symbolFits, symbolSize } from "../score/geometry";
import { keptRange, laneScale, octaves, partRange } from "../score/laneScale";
import { laneBoxes, laneOrder, ROW, rowsOf, STRIP_HEIGHT } from "../score/layout";

const band = laneOrder(firstOf(demoSongs()).parts);
const nine: Part[] = laneOrder(
  ["Second voice", "Third voice", "Strings", "Guitar"].reduce(
    (song, name, i) => edit(song, { do: "addPart", name, role: i < 2 ? "vocal" : "chords", instrument: "piano" }),
    firstOf(demoSongs()),
  ).parts,
);
const open = (boxes: Map<string, { folded: boolean }>) => [...boxes].filter(([, b]) => !b.folded).map(([id]) => id);
const used = (boxes: Map<string, { height: number }>) => [...boxes.values()].reduce((sum, b) => sum + b.height + 1, 0);

describe("lanes", () => {
  test("stand by register: voices above, drums at the foot, in the order of the song within one", () => {
    expect(nine.map((p) => p.role)).toEqual([
      "melody",
      "vocal",
      "vocal",
      "vocal",
      "chords",
      "chords",
      "chords",
      "bass",
      "drums",
    ]);
    const [two, three] = [
      nine.filter((p) => p.role === "chords"),
      [...nine].reverse().filter((p) => p.role === "chords"),
    ];
    expect(laneOrder(three)).toEqual(three);
    expect(laneOrder(two)).toEqual(two);
  });

  test("all are open where there is room for all", () => {
    const boxes = laneBoxes(band, 5, 700, { focus: ["bass"], chosen: {} });
    expect(open(boxes)).toHaveLength(band.length);
    expect(used(boxes)).toBeLessThanOrEqual(700 + band.length);
  });

  test("the lane a workspace is about is high, with nine parts and little room: the others are strips", () => {
    for (const focus of nine.map((p) => p.id)) {
      const boxes = laneBoxes(nine, 5, 420, { focus: [focus], chosen: {} });
      expect(sure(boxes.get(focus)).folded).toBe(false);
      expect(sure(boxes.get(focus)).height).toBeGreaterThanOrEqual(focus === "drums" ? 5 * ROW : 84);
      for (const [id, box] of boxes) if (id !== focus && box.folded) expect(box.height).toBe(STRIP_HEIGHT);
    }
  });

  test("what the user folded stays folded, even what the work is about; what was unfolded stays open", () => {
    const boxes = laneBoxes(nine, 5, 500, { focus: ["bass"], chosen: { bass: false, keys: true } });
    expect([sure(boxes.get("bass")).folded, sure(boxes.get("keys")).folded]).toEqual([true, false]);
  });

  test("rows of drums are whole pixels, never lower than one can hit, and only where the work is about them higher", () => {
    for (const room of [300, 500, 900])
      for (const focus of [["drums"], ["bass"]]) {
        const { height, folded } = sure(laneBoxes(band, 7, room, { focus, chosen: {} }).get("drums"));
        if (!folded) expect([height % 7, height / 7 >= ROW, height / 7 <= 32]).toEqual([0, true, true]);
      }
    const high = sure(laneBoxes(band, 5, 900, { focus: ["drums"], chosen: {} }).get("drums")).height;
    expect(high).toBeGreaterThan(sure(laneBoxes(band, 5, 900, { focus: ["bass"], chosen: {} }).get("drums")).height);
  });

  test("whatever the room and the focus: every part has its lane, at least a strip high", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2000 }),
        fc.subarray(nine.map((p) => p.id)),
        fc.dictionary(fc.constantFrom(...nine.map((p) => p.id)), fc.boolean()),
        fc.integer({ min: 5, max: 12 }),
        (room, focus, chosen, rows) => {
          const boxes = laneBoxes(nine, rows, room, { focus, chosen });
          expect([...boxes.keys()]).toEqual(nine.map((p) => p.id));
          for (const [id, box] of boxes) {
            expect(box.height).toBeGreaterThanOrEqual(STRIP_HEIGHT);
            expect(Number.isInteger(box.height)).toBe(true);
            if (chosen[id] !== undefined) expect(box.folded).toBe(!chosen[id]);
            else if (focus.includes(id)) expect(box.folded).toBe(false);
          }
        },
      ),
    );
  });

  test("rows: hats above, kick at the foot; a drum that is not usual has one when it is used", () => {
    const song = must(Song.create({ title: "Row" }));
    expect(rowsOf(firstOf(song.sections)).at(-1)).toBe("kick");
    expect(rowsOf(firstOf(song.sections))).toHaveLength(5);
    const shaker = edit(song, { do: "setHit", section: "s1", drum: "shaker", start: 0, velocity: 80 });
    expect(rowsOf(firstOf(shaker.sections))).toHaveLength(6);
    expect(rowsOf(firstOf(shaker.sections))).toContain("shaker");
  });
});

describe("the time axis", () => {
  const common = must(Meter.parse("4/4"));
  test("pixels and ticks are each other's inverse", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 6, max: 200 }),
        fc.integer({ min: 0, max: 1920 }),
        fc.integer({ min: -960, max: 100_000 }),
        (zoom, pickup, tick) => {
          const axis = makeAxis(zoom, pickup, 100_000);
          expect(axis.tick(axis.x(tick))).toBeCloseTo(tick, 6);
        },
      ),
    );
  });

  test("as many whole bars as read well fill the width, and no bar loses its last beat", () => {
    for (const meter of ["4/4", "3/4", "7/8 2+2+3", "12/8"].map((m) => must(Meter.parse(m))))
      for (const bars of [1, 2, 4, 5, 8, 12, 16, 24, 64])
        for (const width of [320, 560, 760, 1040, 1400]) {
          const zoom = zoomForBars(width, 480, bars, meter);
          const shown = (width - (480 / 480) * zoom) / ((meter.bar / 480) * zoom);
          expect(zoom).toBeLessThanOrEqual(96);
          // All of a short section, or a whole number of bars of a long one; where even two do not read, as wide as
          // they must be.
          const whole = Math.abs(shown - Math.round(shown)) < 0.01 || shown >= bars || zoom === 34;
          expect([meter.text, bars, width, shown, whole]).toEqual([meter.text, bars, width, shown, true]);
        }
  });

  test("the zoom that fits a section puts its end at the edge", () => {
    const zoom = zoomToFit(900, 480, 8 * 1920);
    expect(makeAxis(zoom, 480, 8 * 1920).x(8 * 1920)).toBeCloseTo(900);
  });

  test("what is drawn is what is in sight, and a bar that reaches into it", () => {
    const axis = makeAxis(48, 0, 64 * 1920);
    const window = { from: 1000, to: 1500 };
    const bars = barsInSight(axis, window, 64, common);
    for (const b of Array.from({ length: 64 }, (_, i) => i)) {
      const [left, right] = [axis.x(b * 1920), axis.x((b + 1) * 1920)];
      expect([b, bars.includes(b)]).toEqual([b, right >= 1000 && left <= 1500]);
    }
    expect(inSight(axis, window, 0, 64 * 1920)).toBe(true);
  });
});

describe("the scale of a lane", () => {
  test("pixels and pitches are each other's inverse, and all of the range is inside the lane", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 60 }),
        fc.integer({ min: 17, max: 50 }),
        fc.integer({ min: 84, max: 260 }),
        (low, span, foot) => {
          const scale = laneScale([low, low + span], foot);
          for (const midi of [low, low + 7.5, low + span]) {
            expect(scale.midiAt(scale.y(midi))).toBeCloseTo(midi, 6);
            expect(scale.y(midi)).toBeGreaterThan(0);
            expect(scale.y(midi)).toBeLessThan(foot);
          }
          expect(scale.semitones(scale.y(low) - scale.y(low + 12))).toBeCloseTo(-12, 6);
        },
      ),
    );
  });

  test("while one works in it, a lane grows where a note would fall out and never shrinks", () => {
    const real = Song.realize(firstOf(demoSongs()), { section: "s1" });
    const bass = sure(real.parts.find((p) => p.role === "bass"));
    const range = partRange(bass, {});
    expect(keptRange(range, bass)).toBe(range);
    const lower = { ...bass, notes: [...bass.notes, { ...firstOf(bass.notes), midi: range[0] - 5 }] };
    expect(keptRange(range, lower)).toEqual([range[0] - 5, range[1]]);
    expect(keptRange(range, { ...bass, notes: [] })).toBe(range);
    for (const note of bass.notes) expect(note.midi >= range[0] && note.midi <= range[1]).toBe(true);
  });

  test("an empty lane shows where its instrument lies, the bass from E1", () => {
    const real = Song.realize(must(Song.create({ title: "Empty" })), {});
    const rangeOf = (role: string) => partRange(sure(real.parts.find((p) => p.role === role)), {});
    expect(rangeOf("bass")[0]).toBeLessThanOrEqual(28);
    expect(rangeOf("melody")[0]).toBeGreaterThanOrEqual(52);
    expect(octaves(28, 61)).toEqual([36, 48, 60]);
  });
});

test("a symbol shrinks, then narrows, and is never cut: the narrower its chord, the smaller it stands", () => {
  const width = (symbol: string, room: number) => {
    const { fontSize, transform } = symbolSize(symbol, room);
    const share = Number(/scaleX\((.*)\)/.exec(transform ?? "")?.[1] ?? 1);
    return { fontSize, share };
  };
  for (const symbol of ["C", "Gm7", "Bbmaj9", "F#m7b5", "Ebmaj9/G", "C7(b9,#11,b13)"]) {
    let last = Infinity;
    for (const room of [300, 160, 90, 60, 40]) {
      const { fontSize, share } = width(symbol, room);
      expect(fontSize).toBeGreaterThanOrEqual(12);
      expect(fontSize * share).toBeLessThanOrEqual(last + 1e-9);
      last = fontSize * share;
    }
    expect(width(symbol, 300)).toEqual({ fontSize: 22, share: 1 });
    // Where it could only be cut it is not shown; it never is where there is room for it.
    expect([symbolFits(symbol, 300), symbolFits(symbol, 10)]).toEqual([true, false]);
    for (const room of [160, 90, 60, 40, 24]) {
      const { fontSize, share } = width(symbol, room);
      const ems = 0.75 + 0.4 * (symbol.length - 1);
      if (symbolFits(symbol, room) && !symbol.includes("/")) expect(fontSize * share * ems).toBeLessThanOrEqual(room);
    }
  }
});
