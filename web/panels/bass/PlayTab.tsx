import { useEffect, useMemo, useState } from "react";
import { quantize, spellInKey, typeset, type Edit, type Part } from "../../../core/src/index";
import { soundPlayedNote } from "../../audio/sound";
import { onPlayed, usePlayed } from "../../input/played";
import { startRecording, useRecord } from "../../input/record";
import type { ScoreData } from "../../score/data";
import { useView } from "../../store/view";
import { auditionEdit, acceptEdit, useStored } from "../hear";
import { PLAY_IN, PlayControls, PlayedIn } from "../PlayControls";

/** A line played in on any keyboard while the band plays, set on the grid, and heard before it is taken. */
export function PlayTab({ data, part }: { data: ScoreData; part: Part }) {
  const { song, section } = useStored(data.section.id);
  const loop = useView((s) => s.loop);
  const { recording } = useRecord();
  const held = usePlayed((s) => s.held);
  const [settings, setSettings] = useState(PLAY_IN);
  const [ends, setEnds] = useState(true);
  const { grid, strength, mode } = settings;
  useEffect(() => onPlayed((midi) => void soundPlayedNote(part.id, midi)), [part.id]);
  const notes = useMemo(
    () => recording && quantize(song, section, recording.notes, { grid, strength, ends, single: true }, recording.from, recording.to),
    [recording, song, section, grid, strength, ends],
  );
  const change = useMemo((): Edit | null => {
    if (!recording || !notes) return null;
    const stored = section.notes[part.id] ?? [];
    // Replacing clears the stretch that was played over; adding lets the new notes cut what they fall into.
    const kept =
      mode === "replace"
        ? stored.filter((n) => n.pinned || n.start < recording.from || n.start >= recording.to)
        : stored.filter((n) => !notes.some((m) => m.start === n.start));
    const cut = kept.map((n) => {
      const next = notes.find((m) => m.start > n.start && m.start < n.start + n.duration);
      return next ? { ...n, duration: next.start - n.start } : n;
    });
    return {
      do: "all",
      label: "played in",
      edits: [
        { do: "keepTake", section: section.id, part: part.id, name: `${stored.length} notes, before playing in` },
        { do: "setNotes", section: section.id, part: part.id, notes: [...cut, ...notes] },
      ],
    };
  }, [recording, notes, section, part.id, mode]);
  const range = loop?.on ? { from: loop.from, to: loop.to } : { from: 0, to: data.length };
  return (
    <>
      <PlayControls
        settings={settings}
        set={(x) => setSettings({ ...settings, ...x })}
        record={() => void startRecording(part.id, range.from, range.to, { countIn: settings.countIn, over: mode === "replace" })}
        keys={
          <>
            <kbd>A</kbd> to <kbd>;</kbd> are white keys from C2, the row above black ones. <kbd>Z</kbd> <kbd>X</kbd> move an octave.
          </>
        }
        heard={typeset(held.map((m) => spellInKey(m, data.key)).join("  "))}
      >
        <label>
          <input type="checkbox" checked={ends} onChange={(e) => setEnds(e.target.checked)} /> ends too
        </label>
      </PlayControls>
      {recording && notes && change && (
        <PlayedIn
          text={`${notes.length} notes played${notes.length < recording.notes.length ? ` (${recording.notes.length - notes.length} fell together or outside)` : ""}: ${typeset(
            notes
              .slice(0, 12)
              .map((n) => n.pitch)
              .join(" "),
          )}${notes.length > 12 ? " …" : ""}`}
          audition={() => auditionEdit(change, "what was played", "played", recording.from, recording.to)}
          accept={() => acceptEdit(change)}
        />
      )}
    </>
  );
}
