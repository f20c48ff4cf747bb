import { sure } from "../../base/list";
import type { Draft } from "immer";
import { z } from "zod";
import { INSTRUMENTS } from "../../theory/instrument/instruments";
import { echoNotes } from "../echo";
import { linkedNotes } from "../linked";
import {
  BassPlaying,
  CounterPlaying,
  CompPlaying,
  DrumsPlaying,
  DynamicsPlaying,
  EchoPlaying,
  InstrumentId,
  Link,
  LIMITS,
  Note,
  OwnInstrument,
  Part,
  PartId,
  PassId,
  SectionId,
  VocalPlaying,
  VoicingPlaying,
  WAYS,
  type Playing,
  type Song,
  type Way,
} from "../schema";
import { defineEdit, refuse, type EditTools } from "./define";

/** A new part; the first bass stays the first, for it is the bass of the harmony. Made: the part. */
export const addPart = defineEdit({
  name: "addPart",
  title: "add a part",
  schema: {
    name: Part.shape.name,
    role: Part.shape.role,
    instrument: InstrumentId,
    link: Link.optional(),
    playing: Part.shape.playing.optional(),
    range: Part.shape.range,
    echoes: PartId.optional(),
    /** What it plays from the beginning, in sections. */
    notes: z.record(SectionId, z.array(Note.omit({ id: true })).max(LIMITS.notes)).optional(),
  },
  apply(draft, { playing = {}, notes = {}, ...part }, { fresh }) {
    const unknown = Object.keys(notes).find((id) => !draft.sections.some((s) => s.id === id));
    if (unknown !== undefined) return refuse("section", `No section has the id "${unknown}"`);
    const after = part.role === "bass" ? draft.parts.findLastIndex((p) => p.role === "bass") : -1;
    const id = fresh("p");
    draft.parts.splice(after + 1, 0, { id, ...part, playing });
    for (const section of draft.sections)
      if (notes[section.id]?.length)
        section.notes[id] = sure(notes[section.id])
          .map((n) => ({ id: fresh("n"), ...n }))
          .sort((a, b) => a.start - b.start);
  },
});

/**
 * Puts a part before another one, or last where none is named. Parts are shown by register; within one, in this order.
 */
export const movePart = defineEdit({
  name: "movePart",
  title: "move a part",
  schema: { part: PartId, before: PartId.nullable() },
  apply(draft, { part: id, before }) {
    if (id === before) return;
    const part = partIn(draft, id);
    const others = draft.parts.filter((p) => p.id !== id);
    const at = before === null ? others.length : others.findIndex((p) => p.id === before);
    draft.parts = [...others.slice(0, at), part, ...others.slice(at)];
  },
});

const partIn = (draft: Draft<Song>, id: string): Draft<Part> => sure(draft.parts.find((p) => p.id === id));

export const setPart = defineEdit({
  name: "setPart",
  title: "change a part",
  schema: {
    part: PartId,
    name: Part.shape.name.optional(),
    instrument: InstrumentId.optional(),
    muted: z.boolean().optional(),
    loop: z.boolean().optional(),
    range: Part.shape.range.nullable(),
    level: Part.shape.level.nullable(),
    pan: Part.shape.pan.nullable(),
  },
  apply(draft, { part: id, loop, range, level, pan, ...change }) {
    const part = partIn(draft, id);
    for (const [name, value] of Object.entries(change)) if (value !== undefined) Object.assign(part, { [name]: value });
    if (loop !== undefined && part.link) part.link.loop = loop;
    for (const [name, value] of Object.entries({ range, level, pan }) as ["range" | "level" | "pan", unknown][]) {
      if (value === null) delete part[name];
      else if (value !== undefined) Object.assign(part, { [name]: value });
    }
  },
});

/** Fields of a way of playing that may be set, or with null given back to what is inherited. */
const changesOf = <S extends z.ZodRawShape>(schema: z.ZodObject<S>) =>
  z.strictObject(
    Object.fromEntries(Object.entries(schema.shape).map(([name, field]) => [name, (field as z.ZodType).nullable()])),
  ) as unknown as z.ZodObject<{ [K in keyof S]: z.ZodOptional<z.ZodNullable<S[K]>> }, z.core.$strict>;

const Weights = VoicingPlaying.shape.weights.unwrap();
const VoicingChanges = changesOf(VoicingPlaying).extend({
  weights: z.partialRecord(Weights.keyType, Weights.valueType.nullable()).nullable().optional(),
});

/**
 * Sets how a part plays: for the part, for one section or for one pass, wherever `section` or `pass` says. Null gives a
 * value back, so that the inherited one holds.
 */
export const setPlaying = defineEdit({
  name: "setPlaying",
  title: "change how a part plays",
  schema: {
    part: PartId,
    section: SectionId.optional(),
    pass: PassId.optional(),
    comp: changesOf(CompPlaying).optional(),
    voicing: VoicingChanges.optional(),
    bass: changesOf(BassPlaying).optional(),
    counter: changesOf(CounterPlaying).optional(),
    vocal: changesOf(VocalPlaying).optional(),
    echo: changesOf(EchoPlaying).optional(),
    drums: changesOf(DrumsPlaying).optional(),
    dynamics: changesOf(DynamicsPlaying).optional(),
  },
  apply(draft, { part, section, pass, ...ways }) {
    if (section !== undefined && pass !== undefined)
      return refuse("playing", "A way of playing belongs to a section or to a pass, not to both");
    let holder;
    if (pass !== undefined) holder = sure(draft.form.find((p) => p.id === pass));
    else if (section !== undefined) holder = sure(draft.sections.find((s) => s.id === section));
    else holder = null;
    const playing: Playing = holder ? ((holder.playing ??= {})[part] ??= {}) : partIn(draft, part).playing;
    for (const way of Object.keys(WAYS) as Way[]) if (ways[way]) change(playing, way, ways[way]);
    if (!holder?.playing) return;
    if (!Object.keys(holder.playing[part] ?? {}).length) delete holder.playing[part];
    if (!Object.keys(holder.playing).length) delete holder.playing;
  },
});

function change(playing: Playing, way: Way, values: Record<string, unknown>): void {
  const target: Record<string, unknown> = { ...playing[way] };
  for (const [name, value] of Object.entries(values)) {
    if (value === null) delete target[name];
    else if (name === "weights") {
      const weights: Record<string, unknown> = { ...(target.weights as object) };
      for (const [term, weight] of Object.entries(value as object)) {
        if (weight === null) delete weights[term];
        else weights[term] = weight;
      }
      if (Object.keys(weights).length) target.weights = weights;
      else delete target.weights;
    } else if (value !== undefined) target[name] = value;
  }
  if (Object.keys(target).length) Object.assign(playing, { [way]: target });
  else delete playing[way];
}

/**
 * Links a part to the chords; null detaches it: what it plays becomes its own notes. What was written by hand gives way
 * to a link.
 */
export const setLink = defineEdit({
  name: "setLink",
  title: "link a part to the chords or detach it",
  schema: { part: PartId, link: Link.nullable() },
  apply(draft, { part: id, link }, tools) {
    if (!link) {
      detach(draft, id, tools);
      return;
    }
    if (link.from === id || link.top === id) return refuse("link", "A part cannot follow itself");
    partIn(draft, id).link = link;
    delete partIn(draft, id).echoes;
    withoutNotes(draft, id);
  },
});

/** What was written by hand for a part that is derived from now on gives way. */
function withoutNotes(draft: Draft<Song>, id: string): void {
  for (const section of draft.sections) {
    delete section.notes[id];
    delete section.beyond?.notes?.[id];
  }
  for (const own of draft.form.flatMap((p) => p.own ?? [])) delete own.notes?.[id];
}

/**
 * Lets a part repeat another one, as an echo does; null prints the echo: what it plays becomes its own notes. What was
 * written by hand gives way to an echo.
 */
export const setEcho = defineEdit({
  name: "setEcho",
  title: "let a part echo another one or print the echo",
  schema: { part: PartId, of: PartId.nullable() },
  apply(draft, { part: id, of }, tools) {
    const part = partIn(draft, id);
    if (of === null) return print(draft, id, tools);
    const source = sure(tools.song.parts.find((p) => p.id === of));
    if (of === id || source.echoes !== undefined)
      return refuse("echo", "A part echoes another one, and no echo is echoed");
    if (source.role === "drums" || part.role === "drums") return refuse("echo", "Drums are not echoed");
    if (part.link) return refuse("echo", `${part.name} plays the chords`, "Give the echo a part of its own.");
    if (tools.song.parts.some((p) => p.echoes === id)) return refuse("echo", `${part.name} is echoed itself`);
    part.echoes = of;
    withoutNotes(draft, id);
  },
});

/** What an echo plays becomes notes of its own. */
function print(draft: Draft<Song>, id: string, { song, fresh }: EditTools): void {
  const echo = song.parts.find((p) => p.id === id);
  if (!echo?.echoes) return;
  for (const section of draft.sections) {
    const original = sure(song.sections.find((s) => s.id === section.id));
    section.notes[id] = echoNotes(song, original, echo).map((note) => ({ ...note, id: fresh("n") }));
  }
  delete partIn(draft, id).echoes;
}

/** What a linked part plays becomes notes of its own. */
function detach(draft: Draft<Song>, id: string, { song, fresh }: EditTools): void {
  const source = song.parts.find((p) => p.id === id);
  if (!source?.link) return;
  for (const section of draft.sections) {
    const original = sure(song.sections.find((s) => s.id === section.id));
    section.notes[id] = linkedNotes(song, original, source).map(({ note }) => ({ ...note, id: fresh("n") }));
  }
  delete partIn(draft, id).link;
}

/** What holds things of parts by their ids: a section, a pass, a take, a stretch of own bars. */
interface Holder {
  notes?: Draft<Song>["sections"][number]["notes"] | undefined;
  playing?: Record<string, unknown> | undefined;
  chords?: Draft<Song>["sections"][number]["chords"] | undefined;
}

/** Takes all that a part has out of a holder. */
function without(holder: Holder, id: string): void {
  delete holder.notes?.[id];
  if (holder.playing) delete holder.playing[id];
  for (const chord of holder.chords ?? []) delete chord.voicings?.[id];
}

/** Parts that live from another one: they keep what they play as notes of their own, or go on without its top. */
function release(draft: Draft<Song>, id: string, tools: EditTools): void {
  for (const p of tools.song.parts)
    if (p.link?.from === id || (p.link?.kind === "block" && p.link.top === id)) detach(draft, p.id, tools);
    else if (p.echoes === id) print(draft, p.id, tools);
    else if (p.link?.top === id) delete sure(partIn(draft, p.id).link).top;
}

/** A part out of the takes; takes that held nothing else go, and their ids are returned. */
function withoutTakes(draft: Draft<Song>, id: string): ReadonlySet<string> {
  const gone = new Set<string>();
  for (const take of draft.takes) {
    const had = take.notes !== undefined && id in take.notes;
    without(take, id);
    if (had && !Object.keys(take.notes ?? {}).length && !take.chords && !take.groove) gone.add(take.id);
  }
  draft.takes = draft.takes.filter((t) => !gone.has(t.id));
  return gone;
}

/** Removes a part with all it has. Parts that play its layouts keep their notes. */
export const removePart = defineEdit({
  name: "removePart",
  title: "remove a part",
  schema: { part: PartId },
  apply(draft, { part: id }, tools) {
    release(draft, id, tools);
    draft.parts = draft.parts.filter((p) => p.id !== id);
    for (const section of draft.sections) {
      without(section, id);
      without(section.beyond ?? {}, id);
    }
    for (const pass of draft.form) {
      without(pass, id);
      if (pass.voicings) delete pass.voicings[id];
      if (pass.muted) pass.muted = pass.muted.filter((p) => p !== id);
      pass.own?.forEach((own) => without(own, id));
    }
    const gone = withoutTakes(draft, id);
    draft.waivers = draft.waivers.filter((w) => !w.parts.includes(id));
    for (const singer of draft.singers) if (singer.partId === id) delete singer.partId;
    for (const entry of draft.log) {
      if (entry.where?.parts) entry.where.parts = entry.where.parts.filter((p) => p !== id);
      if (entry.takeId !== undefined && gone.has(entry.takeId)) delete entry.takeId;
    }
  },
});

export const setInstrument = defineEdit({
  name: "setInstrument",
  title: "make or change an instrument of the song's own",
  schema: { instrument: OwnInstrument },
  apply: (draft, { instrument }) =>
    void (draft.instruments = [...(draft.instruments ?? []).filter((i) => i.id !== instrument.id), instrument]),
});

export const removeInstrument = defineEdit({
  name: "removeInstrument",
  title: "remove an instrument of the song's own",
  schema: { instrument: InstrumentId },
  apply(draft, { instrument: id }) {
    const user = INSTRUMENTS.some((i) => i.id === id) ? undefined : draft.parts.find((p) => p.instrument === id);
    if (user)
      return refuse("instrument", `${user.name} plays this instrument`, "Give the part another instrument first.");
    const left = (draft.instruments ?? []).filter((i) => i.id !== id);
    if (left.length) draft.instruments = left;
    else delete draft.instruments;
  },
});
