import { z } from "zod";
import { given } from "../../base/given";
import { sure } from "../../base/list";
import type { Problem } from "../../base/result";
import { sectionMeter, sectionOf } from "../document";
import {
  BarSpan,
  ChordEvent,
  Groove,
  LIMITS,
  NotesByPart,
  PartId,
  PassId,
  SectionId,
  Take,
  TakeId,
  type Note,
} from "../schema";
import type { Music } from "../stretch";
import { barsOf, hasRoom, inRhythmOf, kept, musicText, withPitchesOf } from "../takes";
import { setDown, stretchOf } from "./bars";
import { defineEdit, refuse } from "./define";

const NO_ROOM: Problem = {
  code: "take.full",
  message: "There is no room for another take",
  hint: "Forget some that nobody needs, in Log.",
};

/** Whether there is anything in some music. */
const isEmpty = ({ chords, groove, notes = {} }: Music): boolean =>
  !Object.keys(notes).length && !chords?.length && !groove?.lanes.some((l) => l.hits.length);

/**
 * Keeps what stands in a section, or in some of its bars, under a name, to come back to: of one part, of several, of
 * the chords, of the drums; of everything where nothing is named; or something `instead` of what stands there. A state
 * that is kept already is not kept twice; where there is no room any more, that is told. Made: the take.
 */
export const keepTake = defineEdit({
  name: "keepTake",
  title: "keep a take",
  schema: {
    section: SectionId,
    pass: PassId.optional(),
    bars: BarSpan.optional(),
    part: PartId.optional(),
    parts: z.array(PartId).max(LIMITS.parts).optional(),
    chords: z.boolean().optional(),
    drums: z.boolean().optional(),
    name: Take.shape.name,
    why: Take.shape.why,
    made: Take.shape.made,
    /** Kept instead of what stands there. */
    instead: z
      .object({
        notes: NotesByPart.optional(),
        chords: z.array(ChordEvent).max(5000).optional(),
        groove: Groove.optional(),
      })
      .optional(),
  },
  apply(draft, { section: id, pass, bars, part, name, why, made, instead, ...what }, { song, fresh, note }) {
    const section = sure(sectionOf(song, id));
    if (bars && bars[1] > section.bars) return refuse("take", `${section.name} has no bar ${bars[1]}`);
    const parts = what.parts ?? (part === undefined ? undefined : [part]);
    const { bar } = sectionMeter(song, section);
    const music: Music = instead ?? kept(section, bar, { ...what, parts }, bars ?? [0, section.bars]);
    const { notes: lists = {}, ...rest } = music;
    const notes = Object.fromEntries(Object.entries(lists).filter(([, list]) => list.length));
    const content: Music = { ...given(rest), ...(Object.keys(notes).length ? { notes } : {}) };
    const text = musicText(content);
    const isSame = (t: Take) => JSON.stringify(t.bars) === JSON.stringify(bars) && musicText(t) === text;
    if (isEmpty(content) || song.takes.some((t) => t.sectionId === id && isSame(t))) return;
    // What it stands beside is done all the same: a step of a line is not refused for want of a take.
    if (!hasRoom(song)) return note(NO_ROOM);
    draft.takes.push({ id: fresh("t"), name, sectionId: id, ...given({ why, made, bars, passId: pass }), ...content });
  },
});

/** Names a take, and says why it was kept. */
export const setTake = defineEdit({
  name: "setTake",
  title: "name a take",
  schema: { take: TakeId, name: Take.shape.name.optional(), why: Take.shape.why.nullable() },
  apply(draft, { take, name, why }) {
    const target = sure(draft.takes.find((t) => t.id === take));
    if (name !== undefined) target.name = name;
    if (why) target.why = why;
    else if (why !== undefined) delete target.why;
  },
});

export const removeTake = defineEdit({
  name: "removeTake",
  title: "forget a take",
  schema: { take: TakeId },
  apply(draft, { take }) {
    draft.takes = draft.takes.filter((t) => t.id !== take);
    for (const entry of draft.log) if (entry.takeId === take) delete entry.takeId;
  },
});

/**
 * Brings a take back into its section: all of it or some of its bars; as it was, or of its lines the rhythm alone, with
 * the pitches of now, or the pitches alone, in the rhythm of now. Pinned notes stay. Taken bar by bar, one take after
 * another, takes are joined.
 */
export const bringTake = defineEdit({
  name: "bringTake",
  title: "bring a take back",
  schema: {
    section: SectionId,
    take: TakeId,
    bars: BarSpan.optional(),
    only: z.enum(["rhythm", "pitches"]).optional(),
  },
  apply(draft, { section: id, take: takeId, bars, only }, { song, fresh }) {
    const section = sure(sectionOf(song, id));
    const take = sure(song.takes.find((t) => t.id === takeId));
    if (take.sectionId !== id) return refuse("take", `${take.name} is a take of another section`);
    const [from, to] = bars ?? barsOf(take, section);
    const span = stretchOf(song, section, [from, Math.min(to, section.bars)]);
    if (span[0] >= span[1]) return refuse("take", `${take.name} has none of these bars`);
    const begins = (n: { start: number }) => (n.start >= span[0] || from === 0) && n.start < span[1];
    // What is set down is copied: these ids are not kept.
    const line = (part: string, list: readonly Note[]): Note[] => {
      const [now, there] = [(section.notes[part] ?? []).filter(begins), list.filter(begins)];
      if (!only) return there;
      const made = only === "rhythm" ? inRhythmOf(now, there) : withPitchesOf(now, there);
      return made.map((n, i) => ({ ...n, id: `${i}` }));
    };
    const notes = Object.fromEntries(
      Object.entries(take.notes ?? {})
        .filter(([part]) => song.parts.some((p) => p.id === part))
        .map(([part, list]) => [part, line(part, list)]),
    );
    const rest = only ? {} : { chords: take.chords?.filter(begins), groove: take.groove };
    const cut = rest.groove && {
      ...rest.groove,
      lanes: rest.groove.lanes.map((l) => ({ ...l, hits: l.hits.filter(begins) })),
    };
    setDown(draft, section, span, {
      music: { ...(rest.chords ? { chords: rest.chords } : {}), ...(cut ? { groove: cut } : {}), notes },
      fresh,
    });
  },
});
