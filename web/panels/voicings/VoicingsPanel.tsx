import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView, VOICE_TABS, type VoiceTab } from "../../store/view";
import { chosenPart, voicedParts } from "./act";
import { ChordTab } from "./ChordTab";
import { InstrumentTab } from "./InstrumentTab";
import { PartsTab } from "./PartsTab";
import { PathTab } from "./PathTab";

const TITLES: Record<VoiceTab, string> = { path: "Path", chord: "Chord", parts: "Parts", instrument: "Instrument" };

export function VoicingsPanel({ data }: { data: ScoreData }) {
  const { voiceTab, set } = useView();
  // Drawn anew when another part is chosen.
  useView((s) => s.voicePart);
  const edit = useSong((s) => s.edit);
  const parts = voicedParts(data.song);
  const part = chosenPart(data.song);
  if (!part)
    return (
      <>
        <h2>Voicings</h2>
        <p>No part of this song plays the chords yet.</p>
        <button
          type="button"
          className="primary"
          onClick={() => edit({ do: "addPart", name: "Piano", role: "chords", instrument: "piano", link: { kind: "voicing", loop: true } })}
        >
          Add a piano that plays them
        </button>
      </>
    );
  return (
    <>
      <div className="row-head first">
        <h2>Voicings, {data.section.name.toLowerCase()}</h2>
        {parts.length > 1 && (
          <select aria-label="Part" value={part.id} onChange={(e) => set({ voicePart: e.target.value, offers: [], voicingPaths: [] })}>
            {parts.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        )}
      </div>
      <div className="tabs" role="tablist" aria-label="Voicings">
        {VOICE_TABS.map((t) => (
          <button key={t} type="button" role="tab" aria-selected={voiceTab === t} onClick={() => set({ voiceTab: t })}>
            {TITLES[t]}
          </button>
        ))}
      </div>
      {voiceTab === "path" && <PathTab data={data} part={part} />}
      {voiceTab === "chord" && <ChordTab data={data} part={part} />}
      {voiceTab === "parts" && <PartsTab data={data} />}
      {voiceTab === "instrument" && <InstrumentTab key={part.id} data={data} part={part} />}
    </>
  );
}
