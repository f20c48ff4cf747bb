import { useEffect, useMemo, useState } from "react";
import { Drums, type Edit, Groove, type Lane, Meter, Midi, Song } from "../../../core/src/index";
import { soundPlayedDrum } from "../../app/audio/sound";
import { acceptEdit, auditionEdit } from "../../app/commands/audition";
import { startRecording, useRecord } from "../../app/commands/record";
import { onPlayed, usePlayed } from "../../app/input/played";
import { stretchOf, usePlayback } from "../../app/store/playback";
import type { SectionData } from "../../app/store/sectionData";
import { songNow, useStored } from "../../app/store/song";
import { PLAY_IN, PlayControls, PlayedIn, type PlayIn } from "../../kit/PlayControls";

/**
 * Drums played in on any keyboard or pads; each key is the drum that General MIDI or the song's own lanes have there.
 */
export function DrumPlay({ data }: { data: SectionData }) {
  const loop = usePlayback((s) => s.loop);
  const recording = useRecord((s) => s.recording);
  const held = usePlayed((s) => s.held);
  const [settings, setSettings] = useState<PlayIn>({ ...PLAY_IN, grid: Meter.SIXTEENTH, mode: "add" });
  const { grid, strength, mode } = settings;
  const { song, section } = useStored(data.section.id);
  const drums = song.parts.find((p) => p.role === "drums");
  const part = drums?.id ?? "";
  useEffect(
    () =>
      onPlayed((midi, velocity) => {
        const drum = Midi.laneForNote(songNow(), section.id, midi);
        if (drum) void soundPlayedDrum(part, drum, velocity);
      }),
    [part, section.id],
  );
  const lanes = useMemo(
    () =>
      recording &&
      Song.quantizeHits(
        recording.notes,
        (midi) => Midi.laneForNote(song, section.id, midi),
        { grid, strength },
        { from: recording.from, to: recording.to },
      ),
    [recording, song, section.id, grid, strength],
  );
  if (!drums) return <p>This song has no drums.</p>;
  const { from, to } = stretchOf(loop, data.length);
  const nameOf = (midi: number) => {
    const drum = Midi.laneForNote(song, section.id, midi);
    return drum ? Drums.laneName(section, drum) : `note ${midi}`;
  };
  return (
    <>
      <PlayControls
        settings={settings}
        set={(x) => setSettings({ ...settings, ...x })}
        record={() =>
          void startRecording(part, from, to, {
            countIn: settings.countIn,
            click: settings.click,
            over: mode === "replace",
          })
        }
        keys={
          <>
            <kbd>A</kbd> kick, <kbd>W</kbd> rim, <kbd>S</kbd> snare, <kbd>E</kbd> clap, <kbd>T</kbd> closed hat,{" "}
            <kbd>Y</kbd> pedal hat, <kbd>U</kbd> open hat, <kbd>F</kbd> tom, <kbd>P</kbd> ride: the notes of General
            MIDI from C2.
          </>
        }
        heard={held.map(nameOf).join(", ")}
      />
      {recording && lanes && <Played data={data} lanes={lanes} from={recording.from} to={recording.to} mode={mode} />}
    </>
  );
}

/** What was played, beside what was there or in its place. */
function Played({
  data,
  lanes,
  from,
  to,
  mode,
}: {
  data: SectionData;
  lanes: Lane[];
  from: number;
  to: number;
  mode: PlayIn["mode"];
}) {
  const { section } = useStored(data.section.id);
  const there = section.groove.lanes;
  const kept =
    mode === "add" ? there : there.map((l) => ({ ...l, hits: l.hits.filter((h) => h.start < from || h.start >= to) }));
  const change: Edit = { do: "setDrums", section: section.id, lanes: Groove.merge(kept, lanes) };
  const hits = lanes.reduce((sum, l) => sum + l.hits.length, 0);
  const each = lanes.map((l) => `${Drums.laneName(section, l.drum)} ${l.hits.length}`).join(", ");
  return (
    <PlayedIn
      text={`${hits} ${hits === 1 ? "hit" : "hits"} played: ${each || "none on a key that has a drum"}`}
      audition={() => auditionEdit(change, "what was played", "played", { from, to })}
      accept={() => acceptEdit(change)}
    />
  );
}
