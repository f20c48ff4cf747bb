import { useEffect, useState } from "react";
import { Chord, firstOf, Key, Pitch } from "../../../core/src/index";
import { soundNote } from "../../app/audio/sound";
import { useVoicePart } from "../../app/commands/voicings";
import { clearPlayed, onPlayed, startComputerKeys, startMidi, usePlayed } from "../../app/input/played";
import { usePreferences } from "../../app/store/preferences";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { around, forKeys, NAME_ONLY, partsFor, putPlayed, type Hands } from "./hands";
import { Named } from "./Named";
import { ComputerKeys } from "../../kit/ComputerKeys";
import { Button } from "../../kit/Button";
import { Select } from "../../kit/Select";

/** Keys join the chord that is collected, while it lasts; each sounds. */
function useCollecting(part: string): void {
  const playIn = usePreferences((s) => s.playIn);
  useEffect(() => onPlayed((midi) => void soundNote(part, midi)), [part]);
  useEffect(() => {
    void startMidi();
    usePlayed.setState({ screenKeys: "collect" });
    return () => {
      usePlayed.setState({ screenKeys: "sound" });
      usePreferences.setState({ playIn: false });
    };
  }, []);
  useEffect(() => (playIn ? startComputerKeys() : undefined), [playIn]);
}

/** Notes played on any keyboard, named while they are held. */
export function PlayedEntry({ data }: { data: SectionData }) {
  const notes = usePlayed((s) => s.notes);
  const device = usePlayed((s) => s.device);
  const deviceProblem = usePlayed((s) => s.deviceProblem);
  const playIn = usePreferences((s) => s.playIn);
  const chord = useSelection((s) => s.chord);
  const part = useVoicePart(data.song)?.id ?? firstOf(data.song.parts).id;
  useCollecting(part);
  const names = notes.map((m) => Key.spell(m, data.key));
  const [target, setTarget] = useState<string | null>(null);
  const parts = partsFor(data.song, "keys");
  const meant = target ?? forKeys(data.song, parts, part);
  const hands: Hands = { target: meant, pitches: names };
  const readings =
    notes.length > 1
      ? Chord.identify({ pitches: names, key: Key.name(data.key), soundsOnly: true, ...around(data, chord) })
      : [];
  // With the computer's keys on, Enter puts the chord that was played.
  useEffect(() => {
    if (!playIn) return;
    const onEnter = (e: KeyboardEvent) => {
      if (
        e.key !== "Enter" ||
        !readings[0] ||
        /^(INPUT|TEXTAREA|SELECT|BUTTON)$/.test((e.target as HTMLElement).tagName)
      )
        return;
      e.preventDefault();
      e.stopPropagation();
      if (putPlayed(data, { symbol: readings[0].symbol, where: "after", hands })) clearPlayed();
    };
    window.addEventListener("keydown", onEnter, true);
    return () => window.removeEventListener("keydown", onEnter, true);
  });
  return (
    <>
      <p className="small">
        Touch the keyboard at the foot of the page: each key joins the chord, or leaves it.{" "}
        {device ? `Listening to ${device}.` : deviceProblem}
      </p>
      <div className="controls">
        <ComputerKeys />
        <Button disabled={!notes.length} onClick={clearPlayed}>
          clear
        </Button>
        <Select
          label="For whom it is played"
          text="for"
          value={meant}
          choices={[...parts.map((p) => [p.id, p.name] as const), [NAME_ONLY, "its name alone"]]}
          set={setTarget}
        />
      </div>
      {playIn && (
        <p className="small">
          <kbd>A</kbd> to <kbd>;</kbd> are white keys from C, the row above black ones. <kbd>Z</kbd> <kbd>X</kbd> move
          an octave, <kbd>Enter</kbd> puts the chord
          {chord ? "" : " at the end"}.
        </p>
      )}
      <p className="played-notes" aria-live="polite">
        {names.length ? Pitch.typeset(names.join("  ")) : "No notes yet."}
      </p>
      <Named data={data} readings={readings} hands={hands} done={clearPlayed} />
    </>
  );
}
