import { Harmony, Key, Pitch, Song, sure } from "../../../core/src/index";
import { useResults } from "../../app/store/results";
import { useSelection } from "../../app/store/selection";
import { edit, useFieldsOfSong } from "../../app/store/song";
import { Button } from "../../kit/Button";

/** Chords that must be there before a key is clear. */
const LEAST_CHORDS = 3;

/** The pitch classes of a key, to tell modes of one scale. */
const scaleOf = (key: string): string => {
  const parsed = Key.parse(key);
  return parsed.ok ? [...parsed.value.pcs].sort().join() : "";
};

const SONG = "the song";

/** Whose key the chords of a section would name: that of the song or, by name, of the section; null where of none. */
function whoseKey(song: Song, id: string): string | null {
  const section = Song.section(song, id);
  if (!section || section.key || section.chords.length < LEAST_CHORDS) return null;
  const alone = song.sections.every((s) => s === section || s.key !== undefined || !s.chords.length);
  return alone ? SONG : section.name;
}

/**
 * The key the chords are in, as soon as it is clear and is not the one that is written: taken with one click. It
 * becomes the song's, or the section's own where other sections have chords in the song's.
 */
export function KeyOffer() {
  const harmony = useResults((s) => s.harmony);
  const id = useSelection((s) => s.section);
  const { whose, written } = useFieldsOfSong((song) => ({ whose: whoseKey(song, id), written: song.key }));
  const [best] = harmony?.keys ?? [];
  if (!best || whose === null) return null;
  if (best.equal.length || scaleOf(best.key) === scaleOf(written)) return null;
  // A key that most chords are at home in is kept, whatever fits as well.
  const atHome = sure(harmony).chords.filter((c) => Harmony.AT_HOME.has(c.category)).length;
  if (atHome * 2 > sure(harmony).chords.length) return null;
  const alone = whose === SONG;
  return (
    <Button
      className="key-offer"
      title={
        `The chords fit ${Pitch.typeset(best.key)} better than ${Pitch.typeset(written)}. Names the key of ` +
        `${whose}; no ` +
        "chord changes"
      }
      onClick={() =>
        edit(alone ? { do: "setKey", key: best.key } : { do: "setSectionTime", section: id, key: best.key })
      }
    >
      {Pitch.typeset(best.key)}
      {alone ? "" : ` for ${whose}`}?
    </Button>
  );
}
