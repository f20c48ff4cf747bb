import { useEffect, useMemo, useState } from "react";
import {
  type Edit,
  Instrument,
  Key,
  type Midi,
  type NewNote,
  type Note,
  type Part,
  Pitch,
  Song,
  sure,
  Text,
} from "../../core/src/index";
import { soundPlayedNote } from "../app/audio/sound";
import { acceptEdit, auditionEdit } from "../app/commands/audition";
import { keepNotes } from "../app/commands/bass";
import { startRecording, useRecord, type Recording } from "../app/commands/record";
import { onPlayed, usePlayed } from "../app/input/played";
import { stretchOf, usePlayback } from "../app/store/playback";
import { edit, songNow, useStored } from "../app/store/song";
import { Check } from "./Check";
import { PLAY_IN, PlayControls, PlayedIn, type PlayIn } from "./PlayControls";
import type { PartProps } from "./partProps";

/** Pitches that are told of what was played. */
const SHOWN = 12;

/**
 * What a line becomes when notes are played into it: those of the stretch give way, or the new ones cut what they fall
 * into.
 */
export function withPlayed(
  stored: readonly Note[],
  notes: readonly NewNote[],
  { from, to }: Recording,
  mode: PlayIn["mode"],
): NewNote[] {
  const kept =
    mode === "replace"
      ? stored.filter((n) => n.pinned || n.start < from || n.start >= to)
      : stored.filter((n) => !notes.some((m) => m.start === n.start));
  const cut = kept.map((n) => {
    const next = notes.find((m) => m.start > n.start && m.start < n.start + n.duration);
    return next ? { ...n, duration: next.start - n.start } : n;
  });
  return [...cut, ...notes];
}

/** The C at or below the middle of a part, from which the computer's keys play it. */
function lowestKey(part: Part, song: Song): Midi {
  const [low, high] = Instrument.range(part.range ?? Instrument.of(part.instrument, song).comfortable);
  return Math.floor((low + high) / 24) * 12;
}

/** A line played in on any keyboard while the band plays, set on the grid, and heard before it is taken. */
export function PlayTab({ data, part }: PartProps) {
  const { song, section } = useStored(data.section.id);
  const loop = usePlayback((s) => s.loop);
  const recording = useRecord((s) => s.recording);
  const held = usePlayed((s) => s.held);
  const [settings, setSettings] = useState(PLAY_IN);
  const [ends, setEnds] = useState(true);
  const { grid, strength, mode } = settings;
  useEffect(() => onPlayed((midi) => void soundPlayedNote(part.id, midi)), [part.id]);
  const notes = useMemo(
    () =>
      recording &&
      Song.quantize(song, section, {
        played: recording.notes,
        how: { grid, strength, ends, single: true },
        from: recording.from,
        to: recording.to,
      }),
    [recording, song, section, grid, strength, ends],
  );
  const change = useMemo((): Edit | null => {
    if (!recording || !notes) return null;
    const stored = section.notes[part.id] ?? [];
    return {
      do: "all",
      label: "played in",
      edits: [
        keepNotes(section.id, part.id, `${Text.counted(stored.length, "note")}, before playing in`),
        { do: "setNotes", section: section.id, part: part.id, notes: withPlayed(stored, notes, recording, mode) },
      ],
    };
  }, [recording, notes, section, part.id, mode]);
  const { from, to } = stretchOf(loop, data.length);
  const lowest = lowestKey(part, song);
  return (
    <>
      <PlayControls
        settings={settings}
        set={(x) => setSettings({ ...settings, ...x })}
        record={() =>
          void startRecording(part.id, from, to, {
            countIn: settings.countIn,
            click: settings.click,
            over: mode === "replace",
            rounds: settings.rounds,
          })
        }
        keys={
          <>
            <kbd>A</kbd> to <kbd>;</kbd> are white keys from {Key.spell(lowest, data.key)}, the row above black ones.{" "}
            <kbd>Z</kbd> <kbd>X</kbd> move an octave.
          </>
        }
        lowest={lowest}
        heard={Pitch.typeset(held.map((m) => Key.spell(m, data.key)).join("  "))}
      >
        <Check on={ends} set={setEnds}>
          ends too
        </Check>
      </PlayControls>
      <Rounds data={data} part={part} settings={settings} />
      {recording && notes && change && (
        <PlayedIn
          text={playedText(notes, recording)}
          audition={() => auditionEdit(change, "what was played", "played", { from: recording.from, to: recording.to })}
          accept={() => acceptEdit(change)}
        />
      )}
    </>
  );
}

/** Rounds of a loop that were played in before the last: each becomes a take as soon as the loop ends. */
function Rounds({ data, part, settings: { grid, strength } }: PartProps & { settings: PlayIn }) {
  const rounds = useRecord((s) => s.rounds);
  const [kept, setKept] = useState(0);
  useEffect(() => {
    if (!rounds.length) return;
    const song = songNow();
    const section = sure(Song.section(song, data.section.id));
    const edits = rounds.map((round, i): Edit => {
      const { notes: played, from, to } = round;
      const notes = Song.quantize(song, section, {
        played,
        how: { grid, strength, ends: true, single: true },
        from,
        to,
      });
      const { bar } = Song.meterOf(song, section);
      const bars: [number, number] = [Math.floor(from / bar), Math.max(1, Math.ceil(to / bar))];
      return {
        do: "keepTake",
        section: section.id,
        name: `Round ${i + 1}, ${part.name.split(",")[0] ?? ""}`,
        made: new Date().toISOString(),
        ...(bars[0] === 0 && bars[1] >= section.bars ? {} : { bars }),
        instead: { notes: { [part.id]: notes.map((n, k) => ({ ...n, id: `n${k + 1}` })) } },
      };
    });
    useRecord.setState({ rounds: [] });
    if (edit({ do: "all", label: "rounds kept", edits })) setKept(edits.length);
  }, [rounds, data.section.id, part, grid, strength]);
  return kept ? (
    <p className="small" role="status">
      {Text.counted(kept, "round")} kept as takes, in Log. The last one:
    </p>
  ) : null;
}

function playedText(notes: readonly NewNote[], recording: Recording): string {
  const lost = recording.notes.length - notes.length;
  const names = notes.slice(0, SHOWN).map((n) => n.pitch);
  const count = `${notes.length} ${notes.length === 1 ? "note" : "notes"} played`;
  return (
    `${count}${lost > 0 ? ` (${lost} fell together or outside)` : ""}: ` +
    `${Pitch.typeset(names.join(" "))}${notes.length > SHOWN ? " …" : ""}`
  );
}
