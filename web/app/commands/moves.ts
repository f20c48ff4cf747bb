import { Edit, firstOf, Instrument, Key, nth, Pitch, Singer, Song } from "../../../core/src/index";
import { edit, storedSong } from "../store/song";
import { workers } from "../workers/sync";
import { keyLogged } from "./log";
import { tellUndoable } from "./undoable";

/** By how much something is moved: semitones, or steps of the scale. */
export type MoveBy = { semitones: number } | { steps: number };

/** Findings after a move that are told; the rest is counted. */
const TOLD = 3;

/**
 * Moves something, and tells what it brings: notes that are now out of reach or comfort, layouts that no longer lie
 * under the hand, a capo that lies better.
 */
export function move(change: Edit, what: string): boolean {
  const before = storedSong();
  if (!edit(keyLogged(change))) return false;
  const after = storedSong();
  tellUndoable(`${what}.`);
  // What it brings is worked out behind the change, so that nothing waits for it.
  setTimeout(() => {
    const brought = Singer.afterMove(before, after);
    const lines = brought.slice(0, TOLD).map((b) => Pitch.typesetAll(`${b.what} ${b.why}`));
    if (brought.length > TOLD) lines.push(`${brought.length - TOLD} more in Check`);
    void capos().then((better) => {
      if (storedSong() === after && lines.length + better.length)
        tellUndoable(`${what}. ${[...lines, ...better].join(". ")}.`);
    });
  });
  return true;
}

/** For parts that are held on a neck: the capo that is easiest now, where it is another one. */
async function capos(): Promise<string[]> {
  const song = storedSong();
  const necks = Edit.laidOutParts(song).filter((p) => Instrument.of(p.instrument, song).held.by === "frets");
  const found = await Promise.all(necks.map(async (part) => ({ part, choices: await workers.writer.capo(part.id) })));
  return found.flatMap(({ part, choices }) => {
    const [best] = choices.ok ? choices.value : [];
    if (!best || best.capo === (Song.playing(part, "voicing").capo ?? 0)) return [];
    const shapes = firstOf(best.keyOfShapes.split(" "));
    return [
      `${part.name} would lie better with ` +
        `${best.capo ? `a capo in fret ${best.capo}, held as in ${Pitch.typesetAll(shapes)}` : "no capo"}`,
    ];
  });
}

/** The keys to which a mode can be changed: the parallel and the relative one, of a major or minor key. */
export function otherModes(text: string): { key: string; title: string }[] {
  const key = Key.parse(text);
  if (!key.ok || (key.value.mode !== "major" && key.value.mode !== "minor")) return [];
  const mode = key.value.mode === "major" ? "minor" : "major";
  const relative = nth(key.value.scale, mode === "minor" ? 5 : 2);
  return [
    { tonic: key.value.tonic, word: "parallel" },
    { tonic: relative, word: "relative" },
  ].flatMap(({ tonic, word }) => {
    const to = Key.parse(`${tonic} ${mode}`);
    return to.ok ? [{ key: Key.name(to.value), title: word }] : [];
  });
}
