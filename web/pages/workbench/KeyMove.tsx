import { useMemo } from "react";
import { firstOf, Key, Pitch, Song, Text } from "../../../core/src/index";
import { endPreview } from "../../app/audio/sound";
import { auditionEdit } from "../../app/commands/audition";
import { move } from "../../app/commands/moves";
import { useSelection } from "../../app/store/selection";
import { edit, useOfSong } from "../../app/store/song";
import { Button } from "../../kit/Button";

/** Whether there is anything that could move. */
const hasMusic = (song: Song): boolean =>
  song.sections.some((s) => s.chords.length > 0 || Object.values(s.notes).some((list) => list.length > 0));

/** A key as it was typed, where it is one that the music could move to: on another tonic, or in another mode. */
export function movableKey(song: Song, text: string): string | null {
  const [from, to] = [Key.parse(song.key), Key.parse(text)];
  if (!from.ok || !to.ok || !hasMusic(song)) return null;
  return from.value.mode !== to.value.mode || from.value.pcs[0] !== to.value.pcs[0] ? Key.name(to.value) : null;
}

const way = (semitones: number): string =>
  `${semitones > 0 ? "up" : "down"} ${Text.counted(Math.abs(semitones), "semitone")}`;

/** A key of another mode was typed: every degree goes to the same degree there. */
function ModeChange({ song, to, end, done }: { song: Song; to: string; end: number; done(): void }) {
  const [from, goal] = [Key.parse(song.key), Key.parse(to)];
  if (!from.ok || !goal.ok || from.value.mode === goal.value.mode) return null;
  const change = { do: "changeMode", key: to } as const;
  return (
    <span className="key-way">
      <Button
        title="Hear the section there"
        onClick={() => auditionEdit(change, `${to}, degree by degree`, "key:mode", { from: 0, to: end })}
      >
        Hear
      </Button>
      <Button
        className="primary"
        title="Every scale degree goes to the same degree of the new key; the dominant keeps its leading tone"
        onClick={() => {
          endPreview();
          move(change, `The song is in ${Pitch.typeset(to)}, degree by degree`);
          done();
        }}
      >
        Change the mode, degree by degree
      </Button>
    </span>
  );
}

/** Another key was typed: the music moves there, up or down, or only its name changes. */
export function KeyMove({ to, done }: { to: string; done(): void }) {
  const song = useOfSong((s) => s);
  const ways = useMemo(
    () =>
      Song.waysTo(song.key, to).flatMap((semitones) => {
        const found = Song.transpose(song, { key: to, semitones });
        return found.ok ? [{ semitones, ...found.value }] : [];
      }),
    [song, to],
  );
  const section =
    Song.section(
      song,
      useSelection((s) => s.section),
    ) ?? firstOf(song.sections);
  const end = section.bars * Song.meterOf(song, section).bar;
  return (
    <div className="key-move" role="group" aria-label={`To ${Pitch.typeset(to)}`}>
      <span>To {Pitch.typeset(to)}:</span>
      {ways.map(({ semitones, edit: change, left }) => (
        <span key={semitones} className="key-way">
          <Button
            title="Hear the section there"
            onClick={() => auditionEdit(change, `${to}, ${way(semitones)}`, `key:${semitones}`, { from: 0, to: end })}
          >
            Hear
          </Button>
          <Button
            className="primary"
            onClick={() => {
              endPreview();
              move(change, `The song was moved to ${Pitch.typeset(to)}, ${way(semitones)}`);
              done();
            }}
          >
            Move {way(semitones)}
          </Button>
          {left.length > 0 && (
            <span className="small" title={left.map((l) => Pitch.typesetAll(`${l.what}: ${l.why}`)).join("\n")}>
              {Pitch.typesetAll(left.map((l) => l.what).join("; "))} would not fit
            </span>
          )}
        </span>
      ))}
      <ModeChange song={song} to={to} end={end} done={done} />
      <span className="key-way">
        <Button
          title="The notes stay as they are; only the key is called another one"
          onClick={() => {
            edit({ do: "setKey", key: to });
            done();
          }}
        >
          Only rename the key
        </Button>
        <Button onClick={done}>Cancel</Button>
      </span>
    </div>
  );
}
