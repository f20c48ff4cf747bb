import { type Edit, type Part, Song, sure, Text } from "../../../core/src/index";
import { setLane } from "../store/selection";
import { edit, songNow, useSong } from "../store/song";
import { tellUndoable } from "./undoable";

type Role = Part["role"];

/** Parts one can add, and what they begin on. */
export const NEW_PARTS: readonly {
  role: Role;
  title: string;
  name: string;
  instrument: string;
  link?: Part["link"];
}[] = [
  { role: "vocal", title: "voice", name: "Voice", instrument: "mezzo" },
  { role: "counter", title: "counter melody", name: "Counter", instrument: "clarinet" },
  { role: "chords", title: "chords", name: "Piano", instrument: "piano", link: { kind: "voicing", loop: true } },
  { role: "bass", title: "bass", name: "Bass", instrument: "bassGuitar" },
];

/** A name that no part has yet. */
export const freeName = (name: string): string =>
  Text.freeName(
    songNow().parts.map((p) => p.name),
    name,
  );

/** Adds a part, shows its lane, and returns its id. */
export function addPart(role: Role): string | undefined {
  const kind = sure(NEW_PARTS.find((k) => k.role === role));
  const { title: _, ...part } = kind;
  const made = useSong.getState().make({ do: "addPart", ...part, name: freeName(kind.name) });
  if (made?.[0]) setLane(made[0], true);
  return made?.[0];
}

/** Removes a part; from where that was done it can be taken back. */
export function removePart(id: string): void {
  const part = Song.part(songNow(), id);
  if (part && edit({ do: "removePart", part: id })) tellUndoable(`${part.name} was removed.`);
}

/** The edit that moves a part past the next one of its register; null at the end. */
export function moveEdit(parts: readonly Part[], id: string, direction: 1 | -1): Edit | null {
  const part = sure(parts.find((p) => p.id === id));
  const row = parts.filter((p) => p.role === part.role);
  const at = row.indexOf(part);
  const next = row[at + direction];
  if (!next) return null;
  return { do: "movePart", part: id, before: direction < 0 ? next.id : (row[at + 2]?.id ?? null) };
}
