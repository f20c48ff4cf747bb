import { produce, type Draft } from "immer";
import { fail, ok, type Problem, type Result } from "../result";
import type { PitchName } from "../pitch/pitch";
import type { Ticks } from "../time/meter";
import {
  SongSchema,
  type ChordEvent,
  type Drum,
  type Hit,
  type Lane,
  type Link,
  type Note,
  type OwnInstrument,
  type Part,
  type Profile,
  type Song,
} from "./schema";

type Nullable<T> = { [K in keyof T]?: T[K] | null };

/**
 * Every change to a song is one of these edits: plain data with a name, applied by a pure function song → song. Fixes, undo, autosave and
 * the worker all carry edits.
 */
export type Edit =
  | { do: "setTitle"; title: string }
  | { do: "setKey"; key: string }
  | { do: "setTempo"; tempo: number }
  | { do: "setMeter"; meter: string }
  | { do: "setSwing"; ratio: number; unit: 8 | 16 }
  | { do: "setProfile"; profile: Profile }
  | { do: "setSection"; section: string; name?: string; bars?: number }
  | { do: "addSection"; name: string; bars: number; copyOf?: string }
  | { do: "removeSection"; section: string }
  | { do: "setLine"; section: string; line: string }
  | { do: "setChord"; section: string; chord: string; symbol: string }
  | { do: "setChords"; section: string; from: Ticks; to: Ticks; chords: (Omit<ChordEvent, "id"> & { id?: string })[] }
  | { do: "pinChords"; section: string; chords: string[]; pinned: boolean }
  | { do: "setReadings"; section: string; chord: string; readings: string[] | null }
  | { do: "arrangeChords"; section: string; chords: string[]; how: "reverse" | "swap" | "double" | "halve" | "remove" }
  | { do: "moveChords"; section: string; chords: string[]; by: "scale" | "semitone"; steps: number }
  | { do: "copyChords"; section: string; chords: string[]; to?: Ticks }
  | { do: "setBorder"; section: string; chord: string; start: Ticks }
  | { do: "respell"; key: string }
  | { do: "setVoicings"; section: string; part: string; pitches: Record<string, PitchName[]> }
  | { do: "pinVoicing"; section: string; part: string; chord: string; pitches: PitchName[] | null }
  | { do: "pinEnds"; section: string; part: string; chord: string; top?: PitchName | null; bottom?: PitchName | null }
  | { do: "addNote"; section: string; part: string; note: Omit<Note, "id"> }
  | { do: "changeNotes"; section: string; part: string; notes: ({ id: string } & Partial<Omit<Note, "id">>)[] }
  | { do: "removeNotes"; section: string; part: string; notes: string[] }
  | { do: "setNotes"; section: string; part: string; notes: (Omit<Note, "id"> & { id?: string })[] }
  | { do: "setHit"; section: string; drum: Drum; start: Ticks; velocity: number | null }
  /** Null takes a field away. */
  | { do: "changeHit"; section: string; drum: Drum; start: Ticks; change: Nullable<Omit<Hit, "start">> }
  | { do: "setLane"; section: string; drum: Drum; change: Nullable<Omit<Lane, "drum" | "hits">> & { hits?: Hit[] } }
  | { do: "setDrums"; section: string; lanes: Lane[] }
  | { do: "repeatDrums"; section: string; bar: number }
  | { do: "setAccents"; section: string; accents: Ticks[] | null }
  | {
      do: "setPart";
      part: string;
      name?: string;
      instrument?: string;
      muted?: boolean;
      /** Null takes a setting away. */
      settings?: Record<string, Part["settings"][string] | null>;
      loop?: boolean;
      range?: [PitchName, PitchName] | null;
    }
  | { do: "addPart"; name: string; role: Part["role"]; instrument: string; link?: Link; settings?: Part["settings"] }
  /** Null detaches: what the part plays becomes its own notes. */
  | { do: "setLink"; part: string; link: Link | null }
  | { do: "setInstrument"; instrument: OwnInstrument }
  | { do: "removeInstrument"; instrument: string }
  | { do: "removePart"; part: string }
  /** Keeps what a part plays in a section under a name, to come back to; a state that is kept already is not kept twice. */
  | { do: "keepTake"; section: string; part: string; name: string }
  | { do: "removeTake"; take: string }
  | { do: "waive"; finding: string; reason: string }
  | { do: "unwaive"; finding: string }
  | { do: "all"; label: string; edits: Edit[] };

export interface Applied {
  song: Song;
  /** Places of a chord line that could not be read; what stood there stayed. */
  problems: Problem[];
}

export const field = SongSchema.shape;

export interface Checker<T> {
  safeParse(value: unknown): { success: true; data: T } | { success: false; error: { issues: readonly { message: string }[] } };
}

export function checked<T>(name: string, schema: Checker<T>, value: unknown): Result<T> {
  const result = schema.safeParse(value);
  if (result.success) return ok(result.data);
  const issue = result.error.issues[0]!;
  return fail(`edit.${name}`, `The ${name} ${JSON.stringify(value)} cannot be used: ${issue.message}`);
}

/** The song after a recipe has changed a draft of it. */
export const done = (song: Song, recipe: (draft: Draft<Song>) => void): Result<Applied> =>
  ok({ song: produce(song, (draft) => void recipe(draft)), problems: [] });
