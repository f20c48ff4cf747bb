import { firstOf, sure } from "../src/base/list";
import fc from "fast-check";
import type { z } from "zod";
import { EDITS, type Edit } from "../src/song/edits/list";
import type { Song } from "../src/song/schema/song";

/** Edits made from the schemas of the edits themselves: values inside what is allowed, at its ends, and just beyond. */

interface Def {
  type: string;
  innerType?: z.ZodType;
  element?: z.ZodType;
  keyType?: z.ZodType;
  valueType?: z.ZodType;
  shape?: Record<string, z.ZodType>;
  options?: z.ZodType[];
  items?: z.ZodType[];
  values?: unknown[];
  entries?: Record<string, unknown>;
  checks?: {
    _zod: {
      def: { check: string; value?: number; inclusive?: boolean; maximum?: number; minimum?: number; format?: string };
    };
  }[];
}
const defOf = (schema: z.ZodType): Def => schema.def as unknown as Def;

/** What ids and texts stand for in one song, with some that stand for nothing. */
type Pools = Record<string, unknown[]>;

/** Places in a section that mean something. */
const TICKS = [0, 120, 240, 480, 960, 1440, 1920, 3840, 7680, -240];
const TEXTS: Pools = {
  pitch: ["C2", "Eb2", "F#2", "G3", "Bb4", "C#5", "Cb4", "C-1", "G9", "X9", "C12", ""],
  key: ["D minor", "F# dorian", "Eb major", "D# minor", "Q major", ""],
  meter: ["3/4", "4/4", "7/8 2+2+3", "6/8", "9/9", "0/4"],
  symbol: ["Ab7", "C", "N.C.", "Dm7b5", "F#m9/C#", "Hm", "", "E7alt"],
  line: ["| Am7 | D9 . . G |", "| C | % | Fjj |", "", "| . C |", "| C ".repeat(600)],
};

function poolsOf(song: Song): fc.Arbitrary<Pools> {
  return fc.constantFrom(...song.sections).chain((section) => {
    const parts = song.parts.map((p) => p.id);
    const voiced = parts.filter((p) => section.notes[p]?.length);
    const shown = () => {
      if (voiced.length) return voiced;
      if (parts.length) return parts;
      return ["nobody"];
    };
    return fc.constantFrom(...shown()).map((part) => ({
      ...TEXTS,
      section: [section.id, section.id, section.id, firstOf(song.sections).id, "nobody", ""],
      part: [part, part, part, ...parts, "nobody"],
      pass: [...song.form.map((p) => p.id), "nobody"],
      chord: [...section.chords.map((c) => c.id), "nobody"],
      note: [...(section.notes[part] ?? []).map((n) => n.id), "nobody"],
      take: [...song.takes.map((t) => t.id), "nobody"],
      singer: [...song.singers.map((s) => s.id), "nobody"],
      entry: [...song.log.map((e) => e.id), "nobody"],
      waiver: [...song.waivers.map((w) => w.id), "nobody"],
      instrument: [
        "piano",
        "clarinet",
        "bassGuitar",
        "guitar",
        ...(song.instruments ?? []).map((i) => i.id),
        "nobody",
        "x".repeat(41),
      ],
    }));
  });
}

const oneOf = (good: unknown[], odd: unknown[] = []): fc.Arbitrary<unknown> =>
  odd.length
    ? fc.oneof({ weight: 14, arbitrary: fc.constantFrom(...good) }, { weight: 1, arbitrary: fc.constantFrom(...odd) })
    : fc.constantFrom(...good);

function numbers({ checks = [] }: Def): fc.Arbitrary<unknown> {
  let [low, high, whole] = [-Infinity, Infinity, false];
  for (const { _zod } of checks) {
    const { check, value = 0, format } = _zod.def;
    if (check === "greater_than") low = Math.max(low, value);
    if (check === "less_than") high = Math.min(high, value);
    if (check === "number_format" && format?.includes("int")) whole = true;
  }
  const ends = [low, high].filter(Number.isFinite);
  const step = whole ? 1 : 0.01;
  const inside = [...TICKS, 0.5, 0.7, 1, 2, 4, 100].filter(
    (n) => n >= low && n <= high && (!whole || Number.isInteger(n)),
  );
  return oneOf([...ends, ...inside, ...inside], [low - step, high + step, 0.25, NaN, Infinity, -1e9, 1e12, "7", null]);
}

function strings(schema: z.ZodType, pools: Pools): fc.Arbitrary<unknown> {
  const meta = schema.meta();
  const pool = meta && pools[meta.ref ?? meta.text ?? ""];
  if (pool) return oneOf(pool);
  const most = defOf(schema).checks?.find((c) => c._zod.def.check === "max_length")?._zod.def.maximum ?? 300;
  return oneOf(
    ["Windfall", " Row nine ", "Äpfel 🍎", "x".repeat(Math.min(most, 2000))],
    ["", "   ", "x".repeat(Math.min(most + 1, 100_001)), 7, null],
  );
}

/** Values for a schema. */
function valueOf(schema: z.ZodType, pools: Pools): fc.Arbitrary<unknown> {
  const def = defOf(schema);
  const inner = (s: z.ZodType) => valueOf(s, pools);
  switch (def.type) {
    case "optional":
      return fc.oneof(inner(sure(def.innerType)), fc.constant(undefined));
    case "nullable":
      return fc.oneof(
        { weight: 3, arbitrary: inner(sure(def.innerType)) },
        { weight: 1, arbitrary: fc.constant(null) },
      );
    case "string":
      return strings(schema, pools);
    case "number":
    case "int":
      return numbers(def);
    case "boolean":
      return oneOf([true, false], ["yes"]);
    case "literal":
      return oneOf(sure(def.values), ["another"]);
    case "enum":
      return oneOf(Object.values(sure(def.entries)), ["another"]);
    case "union":
      return fc.oneof(...sure(def.options).map(inner));
    case "tuple":
      return fc.tuple(...sure(def.items).map(inner));
    case "array":
      return fc.array(inner(sure(def.element)), { maxLength: 3 });
    case "record":
      return fc
        .array(fc.tuple(inner(sure(def.keyType)).map(String), inner(sure(def.valueType))), { maxLength: 3 })
        .map((list) => Object.fromEntries(list));
    case "object":
      return fc
        .record(Object.fromEntries(Object.entries(sure(def.shape)).map(([name, field]) => [name, inner(field)])))
        .map((object) => Object.fromEntries(Object.entries(object).filter(([, value]) => value !== undefined)));
    default:
      throw new Error(`The generator knows no schema of the type "${def.type}"`);
  }
}

/** Any edit, or one of a name, for a song. */
export function anyEdit(song: Song, name?: string): fc.Arbitrary<Edit> {
  const definitions = name ? EDITS.filter((d) => d.name === name) : EDITS;
  return poolsOf(song).chain((pools) =>
    fc.oneof(
      ...definitions.map((d) =>
        fc
          .record(
            Object.fromEntries(
              Object.entries(d.schema as Record<string, z.ZodType>).map(([field, s]) => [field, valueOf(s, pools)]),
            ),
          )
          .map(
            (fields) =>
              ({
                do: d.name,
                ...Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined)),
              }) as Edit,
          ),
      ),
    ),
  );
}

/**
 * A row of random edits, each made for the song it meets; what is refused is passed over. `visit` sees every song that
 * comes of it.
 */
export function walk(
  start: Song,
  {
    seed,
    length,
    apply,
    names,
  }: { seed: number; length: number; apply: (song: Song, edit: Edit) => Song; names?: readonly string[] },
  visit: (song: Song, before: Song, edit: Edit) => void,
): Song {
  let song = start;
  for (let i = 0; i < length; i++) {
    const [edit] = fc.sample(anyEdit(song, names?.[(i + seed) % names.length]), {
      seed: seed * 10_007 + i,
      numRuns: 1,
    });
    const next = apply(song, sure(edit));
    visit(next, song, sure(edit));
    song = next;
  }
  return song;
}
