import type { Draft } from "immer";
import { Singer, SingerId, type Song } from "../schema";
import { assign, defineEdit, refuse } from "./define";

const { name, voice, partId, comfortable, extremes, breath } = Singer.shape;

/** A part is sung by one singer: who had it before has none. */
function alone(draft: Draft<Song>, id: string, part: string | null | undefined): void {
  if (part) for (const other of draft.singers) if (other.id !== id && other.partId === part) delete other.partId;
}

/** A singer, with the voice and the ranges that were measured. Made: the singer. */
export const addSinger = defineEdit({
  name: "addSinger",
  title: "add a singer",
  schema: { name, voice, part: partId, comfortable, extremes, breath },
  apply(draft, { part, ...singer }, { fresh }) {
    const id = fresh("v");
    alone(draft, id, part);
    draft.singers.push({ id, ...singer, ...(part === undefined ? {} : { partId: part }) });
  },
});

export const setSinger = defineEdit({
  name: "setSinger",
  title: "change a singer",
  schema: {
    singer: SingerId,
    name: name.optional(),
    voice: voice.optional(),
    part: partId.nullable(),
    comfortable: comfortable.nullable(),
    extremes: extremes.nullable(),
    breath: breath.nullable(),
  },
  apply(draft, { singer: id, part, ...change }) {
    const singer = draft.singers.find((s) => s.id === id);
    if (!singer) return refuse("singer", `No singer has the id "${id}"`);
    alone(draft, id, part);
    assign(singer, { ...change, partId: part });
  },
});

export const removeSinger = defineEdit({
  name: "removeSinger",
  title: "remove a singer",
  schema: { singer: SingerId },
  apply: (draft, { singer }) => void (draft.singers = draft.singers.filter((s) => s.id !== singer)),
});
