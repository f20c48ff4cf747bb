import Table from "react-bootstrap/Table";
import { useEffect, useMemo, useState } from "react";
import { firstOf, Pitch, Singer, Song, Text } from "../../../core/src/index";
import { auditionEdit } from "../../app/commands/audition";
import { endPreview } from "../../app/audio/sound";
import { tellUndoable } from "../../app/commands/undoable";
import type { SectionData } from "../../app/store/sectionData";
import { edit, useSong, useStored } from "../../app/store/song";
import { HearTake } from "../../kit/HearTake";
import { Select } from "../../kit/Select";
import { keyText, percent } from "../../kit/texts";
import { workers } from "../../app/workers/sync";
import type { TriedKey } from "../../app/workers/music.worker";
import { Button } from "../../kit/Button";

/** The song tried in all keys; what is shown while it is tried again is what was found before. */
function useKeys(song: Song, singers: string): TriedKey[] {
  const [keys, setKeys] = useState<TriedKey[]>([]);
  const version = useSong((s) => s.version);
  useEffect(() => {
    let wanted = true;
    void workers.writer.keys(singers ? [singers] : []).then((found) => wanted && found.ok && setKeys(found.value));
    return () => {
      wanted = false;
    };
  }, [song, version, singers]);
  return keys;
}

const moved = (semitones: number): string =>
  semitones === 0 ? "now" : `${semitones > 0 ? "+" : "−"}${Math.abs(semitones)}`;

/**
 * The twelve keys for one singer or all: by comfort and by power, with how guitar and ukulele would play, heard and
 * moved to.
 */
export function Keys({ data }: { data: SectionData }) {
  const { song } = useStored(data.section.id);
  const [who, setWho] = useState("");
  const keys = useKeys(song, who);
  const [open, setOpen] = useState<string | null>(null);
  const singing = song.singers.filter((s) => s.partId);
  if (!keys.length) return null;
  const power = Singer.byPower(keys);
  const [easiest, strongest] = [firstOf(keys), firstOf(power)];
  const shown = keys.find((k) => k.key === open);
  return (
    <>
      <h3>Keys</h3>
      <p className="small">
        Most comfortable: <b>{keyText(easiest.key)}</b>.{" "}
        {strongest.power !== null && (
          <>
            Most power: <b>{keyText(strongest.key)}</b>.{" "}
          </>
        )}
        Comfort is time at ease, less what lies beyond the voice; power is how many peaks of the chorus lie in the upper
        third of what is at ease. For several singers a key counts as it suits the one it suits least.
      </p>
      {singing.length > 1 && (
        <Select
          label="For whom"
          text="for"
          value={who}
          choices={[["", "all singers"], ...singing.map((s) => [s.id, s.name] as const)]}
          set={setWho}
        />
      )}
      <Table bsPrefix="measures" className="song-keys">
        <thead>
          <tr>
            <th scope="col">key</th>
            <th scope="col" title="Semitones from where the song is now">
              move
            </th>
            <th scope="col">comfort</th>
            <th scope="col">power</th>
            <th scope="col" title="Capo and the key of the shapes">
              guitar
            </th>
            <th scope="col" title="Capo and the key of the shapes">
              ukulele
            </th>
          </tr>
        </thead>
        <tbody>
          {keys.map((k) => (
            <tr key={k.key} className={k.semitones === 0 ? "current" : ""}>
              <th scope="row">
                <Button aria-expanded={open === k.key} onClick={() => setOpen(open === k.key ? null : k.key)}>
                  {Pitch.typeset(firstOf(k.key.split(" ")))}
                </Button>
              </th>
              <td>{moved(k.semitones)}</td>
              <Bar share={k.comfort} best={k === easiest} />
              <Bar share={k.power} best={k === strongest} />
              {k.necks.map((n) => (
                <td key={n.instrument} className="neck">
                  {Pitch.typeset(firstOf(n.keyOfShapes.split(" ")))}
                  <span className="small">{n.capo ? ` capo ${n.capo}` : ""}</span>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
      {shown ? (
        <Shown data={data} song={song} found={shown} />
      ) : (
        <p className="small">Press a key to see why, to hear it and to move the song there.</p>
      )}
    </>
  );
}

function Bar({ share, best }: { share: number | null; best: boolean }) {
  return (
    <td className={`bar-cell${best ? " best" : ""}`}>
      {share === null ? (
        "–"
      ) : (
        <>
          <span className="share" style={{ width: `${Math.max(0, share) * 30}px` }} />
          {percent(Math.max(0, share))}
          {best && <span className="visually-hidden"> the best</span>}
        </>
      )}
    </td>
  );
}

/** Why a key suits or does not, how it is held, and the ways there. */
function Shown({ data, song, found }: { data: SectionData; song: Song; found: TriedKey }) {
  const ways = useMemo(
    () =>
      Song.waysTo(song.key, found.key)
        .sort((a, b) => Number(b === found.semitones) - Number(a === found.semitones))
        .flatMap((semitones) => {
          const moved = Song.transpose(song, { key: found.key, semitones });
          return moved.ok ? [{ semitones, ...moved.value }] : [];
        }),
    [song, found],
  );
  return (
    <div className="key-shown">
      <b>{keyText(found.key)}</b>
      {found.reasons.map((r) => (
        <p key={r} className="small">
          {Pitch.typesetAll(r)}.
        </p>
      ))}
      {found.necks.map((n) => (
        <p key={n.instrument} className="small">
          {n.instrument === "guitar" ? "Guitar" : "Ukulele"}: {n.capo ? `capo in fret ${n.capo}, ` : ""}
          {n.chords.slice(0, 8).map(Pitch.typesetAll).join("  ")}
        </p>
      ))}
      {ways.map(({ semitones, edit: change, left }) => {
        const words = `${semitones > 0 ? "up" : "down"} ${Text.counted(Math.abs(semitones), "semitone")}`;
        const id = `keys:${found.key}:${semitones}`;
        return (
          <p key={semitones} className="controls">
            <span>Move {words}</span>
            <HearTake
              id={id}
              name={`${found.key}, ${words}`}
              takeText="Move"
              hear={() => auditionEdit(change, `${found.key}, ${words}`, id, { from: 0, to: data.length })}
              take={() => {
                endPreview();
                if (edit(change)) tellUndoable(`The song was moved to ${keyText(found.key)}, ${words}.`);
              }}
            />
            {left.length > 0 && (
              <span className="small">{Pitch.typesetAll(left.map((l) => `${l.what} ${l.why}`).join("; "))}</span>
            )}
          </p>
        );
      })}
    </div>
  );
}
