import { lastOf, sure } from "../../base/list";
import type { Draft } from "immer";
import { z } from "zod";
import type { Problem } from "../../base/result";
import type { Drum } from "../../theory/instrument/drums";
import { LIMITS, type Section, type Song } from "../schema";

/** A place between the passes of the form, counted from 0. */
export const PlaceInForm = z.int("places are whole numbers").min(0).max(LIMITS.passes);

/** What begins the ids of each thing. */
export type IdPrefix = "s" | "p" | "o" | "c" | "n" | "t" | "v" | "w";

/** What an edit can use beside the draft it changes. */
export interface EditTools {
  /** The song as it was, to read from: reading a draft is slow. */
  song: Song;
  /** A new id that nothing in the song has, nor `taken`; the caller of the edit is told of it. */
  fresh(prefix: IdPrefix, taken?: ReadonlySet<string>): string;
  /** Tells the caller of something that could not be done, while the rest stands. */
  note(problem: Problem): void;
}

type Shape = Record<string, z.ZodType>;
type Parsed<S extends Shape> = z.infer<z.ZodObject<S>>;

export interface EditDefinition<N extends string = string, S extends Shape = Shape> {
  /** Its name: the `do` of the edit. */
  name: N;
  /** What it does, in a few words. */
  title: string;
  /** It is of a section as a whole, whichever of its passes is looked at. */
  whole?: true;
  /** Its fields. A field that refers to something says so in its schema and is checked before `apply`. */
  schema: S;
  /** Changes the draft, or says why not; then nothing is changed. */
  apply(draft: Draft<Song>, edit: Parsed<S>, tools: EditTools): Problem | void;
}

/** Defines an edit. Its type, its checks, undo, autosave and the workers follow from this. */
export const defineEdit = <N extends string, S extends Shape>(definition: EditDefinition<N, S>): EditDefinition<N, S> =>
  definition;

/** A problem as a value. */
export const refuse = (code: string, message: string, hint?: string): Problem => ({
  code: `edit.${code}`,
  message,
  ...(hint ? { hint } : {}),
});

/** Copies of chords and notes, with ids of their own. */
export function copiedMaterial<M extends { [K in "chords" | "notes"]?: Section[K] | undefined }>(
  material: M,
  fresh: EditTools["fresh"],
): M {
  const { chords, notes } = material;
  return {
    ...material,
    ...(chords ? { chords: chords.map((c) => ({ ...c, id: fresh("c") })) } : {}),
    ...(notes
      ? {
          notes: Object.fromEntries(
            Object.entries(notes).map(([part, list]) => [part, list.map((n) => ({ ...n, id: fresh("n") }))]),
          ),
        }
      : {}),
  };
}

/** The draft of a section that is known to be there. */
export const draftOf = (draft: Draft<Song>, section: string): Draft<Section> =>
  sure(draft.sections.find((s) => s.id === section));

/** The lane of a drum, made where there is none. */
export function laneIn(section: Draft<Section>, drum: Drum): Draft<Section>["groove"]["lanes"][number] {
  const found = section.groove.lanes.find((l) => l.drum === drum);
  if (found) return found;
  section.groove.lanes.push({ drum, hits: [] });
  return lastOf(section.groove.lanes);
}

/** Sets what is given, removes what is null, leaves what is absent. */
export function assign<T extends object>(target: T, change: { [K in keyof T]?: T[K] | null | undefined }): void {
  for (const [name, value] of Object.entries(change) as [keyof T, T[keyof T] | null | undefined][]) {
    if (value === null) delete target[name];
    else if (value !== undefined) target[name] = value;
  }
}
