import { Chord, Edit, firstOf, Instrument, type Part, Pitch, Song, Voicing } from "../../../core/src/index";
import { put, type PutWith, type Where } from "../../app/commands/chords";
import { freeName } from "../../app/commands/parts";
import type { SectionData } from "../../app/store/sectionData";
import { setLane, useSelection } from "../../app/store/selection";
import { say, songNow, useSong } from "../../app/store/song";

/** What stands before and after a chord that is put behind the chosen one, or at the end. */
export function around(
  { section: { chords } }: SectionData,
  focus: string | null,
): { before?: string; after?: string } {
  const at = chords.findIndex((c) => c.id === focus);
  const [before, after] = at < 0 ? [chords.at(-1), undefined] : [chords[at], chords[at + 1]];
  return {
    ...(before && before.symbol !== Chord.NONE ? { before: before.symbol } : {}),
    ...(after && after.symbol !== Chord.NONE ? { after: after.symbol } : {}),
  };
}

/** Whom what was played is meant for: a part, a part that is still to be added, or nobody (the name alone). */
export const NEW_PART = "new";
export const NAME_ONLY = "name";

/** Parts that lay the chords out, and whose players have a neck, or have none. */
export const partsFor = (song: Song, by: "frets" | "keys"): Part[] =>
  Edit.laidOutParts(song).filter(
    (p) => p.link?.kind === "voicing" && (Instrument.of(p.instrument, song).held.by === "frets" || by === "keys"),
  );

/** What hands have played, and for whom. */
export interface Hands {
  /** A part by its id, or one of the two above. */
  target: string;
  /** Sounding, from the lowest. */
  pitches: readonly string[];
  /** The shape on a neck, its strings and what the part is called where it is new. */
  neck?: {
    frets: readonly (number | null)[];
    capo: number;
    strings: readonly string[];
    instrument: string;
    name: string;
  };
}

/** The part that is meant, added where it is new; null where it cannot be. */
function partOf({ target, neck }: Hands): { id: string; added: boolean } | null {
  if (target !== NEW_PART) return { id: target, added: false };
  const made = useSong.getState().make({
    do: "addPart",
    name: freeName(neck?.name ?? "Piano"),
    role: "chords",
    instrument: neck?.instrument ?? "piano",
    link: { kind: "voicing", loop: true },
    playing: {},
  });
  const id = made?.[0];
  if (id === undefined) return null;
  setLane(id, true);
  return { id, added: true };
}

/** Gives a part the strings and the capo that a shape was found on, where they are not its own. */
function tuned(part: string, neck: NonNullable<Hands["neck"]>, quiet: boolean): void {
  const song = songNow();
  const now = Song.part(song, part);
  if (!now) return;
  const { held } = Instrument.of(now.instrument, song);
  const { capo = 0, tuning } = now.playing.voicing ?? {};
  const strings = tuning ?? (held.by === "frets" ? held.strings : []);
  const change = {
    ...(neck.capo === capo ? {} : { capo: neck.capo || null }),
    ...(neck.strings.join() === strings.join() ? {} : { tuning: [...neck.strings] }),
  };
  if (Object.keys(change).length)
    useSong.getState().edit({ do: "setPlaying", part, voicing: change }, quiet ? { quiet } : {});
}

/**
 * Puts a chord into the section as hands have played it: its notes, and its shape on a neck, are the pinned layout of
 * the part they are meant for. Where no player can play it so, that is said, and nothing is put.
 */
export function putPlayed(
  data: SectionData,
  { symbol, where, hands }: { symbol: string; where: Where; hands: Hands },
  more: PutWith = {},
): boolean {
  if (hands.target === NAME_ONLY) return put(data, symbol, where, more);
  const part = partOf(hands);
  if (!part) return false;
  if (hands.neck) tuned(part.id, hands.neck, part.added);
  const chord = Chord.of(symbol);
  const pitches = chord ? Voicing.spell(hands.pitches.map(Pitch.midi), chord) : [...hands.pitches];
  const held = hands.neck
    ? { shape: { frets: [...hands.neck.frets], capo: hands.neck.capo } }
    : playedOn(data.section.id, part.id, pitches);
  if (!held) return false;
  const made = put(data, symbol, where, { ...more, played: { part: part.id, pitches, ...held } });
  if (made) useSelection.setState({ voicePart: part.id });
  return made;
}

/** How a player of a part plays some notes; says why not, where none can. */
function playedOn(sectionId: string, partId: string, pitches: string[]) {
  const song = songNow();
  const [section, part] = [Song.section(song, sectionId), Song.part(song, partId)];
  if (!section || !part) return null;
  const held = Voicing.playable({ song, section, part }, pitches);
  if (held.ok) return held.value;
  say({ ...held.error, message: `${part.name} cannot play this: ${held.error.message}` });
  return null;
}

/** The part in whose sound what was played is heard. */
export const voiceFor = ({ song }: SectionData, { target }: Hands): string =>
  Song.part(song, target)?.id ?? partsFor(song, "keys")[0]?.id ?? firstOf(song.parts).id;

/** For whom keys are played: the part that is worked on, where it is held by hands; else the first that is. */
export function forKeys(song: Song, parts: readonly Part[], worked: string): string {
  const byHands = parts.filter((p) => Instrument.of(p.instrument, song).held.by !== "frets");
  return (byHands.find((p) => p.id === worked) ?? byHands[0] ?? parts[0])?.id ?? NAME_ONLY;
}
