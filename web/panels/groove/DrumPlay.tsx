import { useEffect, useMemo, useState } from "react";
import { laneForNote, mergeLanes, quantizeHits, type Edit } from "../../../core/src/index";
import { soundPlayedDrum } from "../../audio/sound";
import { onPlayed, usePlayed } from "../../input/played";
import { startRecording, useRecord } from "../../input/record";
import type { ScoreData } from "../../score/data";
import { drumName } from "../../score/DrumLane";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { auditionEdit, acceptEdit, useStored } from "../hear";
import { PLAY_IN, PlayControls, PlayedIn } from "../PlayControls";

/** Drums played in on any keyboard or pads; each key is the drum that General MIDI or the song's own lanes have there. */
export function DrumPlay({ data }: { data: ScoreData }) {
  const loop = useView((s) => s.loop);
  const { recording } = useRecord();
  const held = usePlayed((s) => s.held);
  const [settings, setSettings] = useState({ ...PLAY_IN, grid: 120, mode: "add" as (typeof PLAY_IN)["mode"] });
  const { grid, strength, mode } = settings;
  const { song, section } = useStored(data.section.id);
  const drums = song.parts.find((p) => p.role === "drums");
  const drumId = drums?.id ?? "";
  useEffect(
    () =>
      onPlayed((midi, velocity) => {
        const lane = laneForNote(useSong.getState().song!, section.id, midi);
        if (lane) void soundPlayedDrum(drumId, lane, velocity);
      }),
    [drumId, section.id],
  );
  const change = useMemo((): { edit: Edit; text: string } | null => {
    if (!recording) return null;
    const lanes = quantizeHits(
      recording.notes,
      (midi) => laneForNote(song, section.id, midi),
      { grid, strength },
      recording.from,
      recording.to,
    );
    const kept =
      mode === "add"
        ? section.groove.lanes
        : section.groove.lanes.map((l) => ({ ...l, hits: l.hits.filter((h) => h.start < recording.from || h.start >= recording.to) }));
    const hits = lanes.reduce((sum, l) => sum + l.hits.length, 0);
    return {
      edit: { do: "setDrums", section: section.id, lanes: mergeLanes(kept, lanes) },
      text: `${hits} hits played: ${lanes.map((l) => `${drumName(section, l.drum)} ${l.hits.length}`).join(", ") || "none on a key that has a drum"}`,
    };
  }, [recording, song, section, grid, strength, mode]);
  if (!drums) return <p>This song has no drums.</p>;
  const range = loop?.on ? { from: loop.from, to: loop.to } : { from: 0, to: data.length };
  return (
    <>
      <PlayControls
        settings={settings}
        set={(x) => setSettings({ ...settings, ...x })}
        record={() => void startRecording(drums.id, range.from, range.to, { countIn: settings.countIn, over: mode === "replace" })}
        keys={
          <>
            <kbd>A</kbd> kick, <kbd>W</kbd> rim, <kbd>S</kbd> snare, <kbd>E</kbd> clap, <kbd>T</kbd> closed hat, <kbd>Y</kbd> pedal hat,{" "}
            <kbd>U</kbd> open hat, <kbd>F</kbd> tom, <kbd>P</kbd> ride: the notes of General MIDI from C2.
          </>
        }
        heard={held
          .map((m) => {
            const lane = laneForNote(song, section.id, m);
            return lane ? drumName(section, lane) : `note ${m}`;
          })
          .join(", ")}
      />
      {recording && change && (
        <PlayedIn
          text={change.text}
          audition={() => auditionEdit(change.edit, "what was played", "played", recording.from, recording.to)}
          accept={() => acceptEdit(change.edit)}
        />
      )}
    </>
  );
}
