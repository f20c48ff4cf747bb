import { useState } from "react";
import {
  DRUM_KINDS,
  drumNotes,
  DRUMS,
  importMidi,
  readMidi,
  typeset,
  writeLine,
  type Drum,
  type MidiChoices,
  type MidiContents,
  type Problem,
} from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { MIDI_FILES, OpenFile } from "../../ui/OpenFile";
import { Refused } from "../../ui/Refused";

type Use = "–" | "chords" | "melody" | "bass" | "drums" | "chords and bass";

type Only = "drums" | "bass";

/** A first guess of what each track is: drums by channel, the lowest single line is the bass, the highest one the tune, the rest chords. */
function guess(contents: MidiContents, only: Only | undefined): Record<string, Use> {
  if (only) {
    const bass = [...contents.tracks].filter((t) => !t.drums).sort((a, b) => a.lowest - b.lowest)[0];
    return Object.fromEntries(contents.tracks.map((t) => [t.id, only === "drums" ? (t.drums ? "drums" : "–") : t === bass ? "bass" : "–"]));
  }
  const pitched = contents.tracks.filter((t) => !t.drums);
  const lines = pitched.filter((t) => t.voices <= 2);
  const bass = [...lines].sort((a, b) => a.lowest - b.lowest).find((t) => t.lowest < 48);
  const melody = [...lines].filter((t) => t !== bass).sort((a, b) => b.highest - a.highest)[0];
  return Object.fromEntries(
    contents.tracks.map((t) => [t.id, t.drums ? "drums" : t === bass ? "bass" : t === melody && pitched.length > 1 ? "melody" : "chords"]),
  );
}

/** Takes chords, tune, bass and drums from a Standard MIDI File; what will be written is seen before it is. */
export function MidiFile({ data, only, bassPart }: { data: ScoreData; only?: Only; bassPart?: string }) {
  const { edit, song } = useSong();
  const [file, setFile] = useState<{ name: string; contents: MidiContents } | null>(null);
  const [uses, setUses] = useState<Record<string, Use>>({});
  const [bars, setBars] = useState<[number, number]>([1, 8]);
  const [unit, setUnit] = useState<MidiChoices["unit"]>("bar");
  const [keep, setKeep] = useState({ tempo: !only, meter: !only, key: !only });
  const [drumMap, setDrumMap] = useState<Record<number, Drum | null>>({});
  const [addDrums, setAddDrums] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [done, setDone] = useState<string | null>(null);
  const open = async (chosen: File) => {
    setDone(null);
    const result = readMidi(new Uint8Array(await chosen.arrayBuffer()));
    setProblem(result.ok ? null : result.error);
    if (!result.ok) return setFile(null);
    setFile({ name: chosen.name, contents: result.value });
    setUses(guess(result.value, only));
    setDrumMap({});
    setBars([1, Math.min(512, Math.max(1, Math.ceil(result.value.length / data.meter.bar)))]);
  };
  const by = (use: Use) =>
    file?.contents.tracks.find((t) => uses[t.id] === use || (use !== "drums" && use !== "melody" && uses[t.id] === "chords and bass"))?.id;
  const choices: MidiChoices | null = file && {
    chords: file.contents.tracks.filter((t) => uses[t.id]?.startsWith("chords")).map((t) => t.id),
    ...(by("melody") ? { melody: by("melody")! } : {}),
    ...(by("bass") ? { bass: by("bass")! } : {}),
    ...(by("drums") ? { drums: by("drums")! } : {}),
    bars: [bars[0] - 1, bars[1]],
    unit,
    drumMap,
    addDrums,
    ...(bassPart ? { bassPart } : {}),
    ...keep,
    file: file.name,
  };
  const drumTrack = file?.contents.tracks.find((t) => t.id === choices?.drums);
  const plan = choices && song ? importMidi(song, data.section.id, file!.contents, choices) : null;
  return (
    <>
      <OpenFile accept={MIDI_FILES} open={(chosen) => void open(chosen)}>
        Open a MIDI file …
      </OpenFile>
      {problem && <Refused problem={problem} />}
      {done && (
        <p className="small" role="status">
          {done}
        </p>
      )}
      {file && (
        <>
          <p className="small">
            {file.name}: {Math.ceil(file.contents.length / data.meter.bar)} bars, {file.contents.tempos[0]!.bpm} bpm,{" "}
            {file.contents.meters[0]!.text}
          </p>
          <table className="measures midi-tracks">
            <tbody>
              {file.contents.tracks.map((t) => (
                <tr key={t.id}>
                  <th scope="row">
                    {t.name}{" "}
                    <span className="small">
                      ch {t.channel}, {t.notes.length} notes
                    </span>
                  </th>
                  <td>
                    <select
                      aria-label={`Use ${t.name} as`}
                      value={uses[t.id]}
                      onChange={(e) => setUses({ ...uses, [t.id]: e.target.value as Use })}
                    >
                      {usesOf(t.drums, only).map((u) => (
                        <option key={u}>{u}</option>
                      ))}
                    </select>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="controls">
            <label>
              <span className="muted">bars</span>
              <input
                type="number"
                min={1}
                value={bars[0]}
                style={{ width: 56 }}
                aria-label="First bar"
                onChange={(e) => setBars([Number(e.target.value) || 1, bars[1]])}
              />
              <span>–</span>
              <input
                type="number"
                min={1}
                value={bars[1]}
                style={{ width: 56 }}
                aria-label="Last bar"
                onChange={(e) => setBars([bars[0], Number(e.target.value) || 1])}
              />
            </label>
            <label hidden={only !== undefined}>
              <span className="muted">a chord each</span>
              <select value={unit} onChange={(e) => setUnit(e.target.value as MidiChoices["unit"])}>
                <option>bar</option>
                <option>half bar</option>
                <option>beat</option>
              </select>
            </label>
          </div>
          <div className="controls">
            <label>
              <input type="checkbox" checked={keep.tempo} onChange={(e) => setKeep({ ...keep, tempo: e.target.checked })} /> its tempo
            </label>
            <label>
              <input type="checkbox" checked={keep.meter} onChange={(e) => setKeep({ ...keep, meter: e.target.checked })} /> its meter
            </label>
            {file.contents.keys[0] && !data.section.key && (
              <label>
                <input type="checkbox" checked={keep.key} onChange={(e) => setKeep({ ...keep, key: e.target.checked })} /> its key,{" "}
                {typeset(file.contents.keys[0].key)}
              </label>
            )}
          </div>
          {drumTrack && (
            <DrumMap
              notes={drumNotes(data.song, data.section.id, drumTrack, (bars[0] - 1) * data.meter.bar, bars[1] * data.meter.bar)}
              map={drumMap}
              set={setDrumMap}
              add={addDrums}
              setAdd={setAddDrums}
            />
          )}
          {plan && !plan.ok && <Refused problem={plan.error} />}
          {plan?.ok && (
            <>
              {plan.value.chords.length > 0 && (
                <>
                  <p className="line-preview">{typeset(writeLine(plan.value.chords, data.meter, bars[1] - bars[0] + 1))}</p>
                  <p className="small">
                    {plan.value.unsure
                      ? `${plan.value.unsure} of ${plan.value.chords.length} chords are doubtful; their readings are kept with them.${unit === "bar" ? " A bar may hold two chords: try half bars." : ""}`
                      : "All chords are read with certainty."}
                  </p>
                </>
              )}
              {plan.value.reported.map((r) => (
                <p key={r} className="small">
                  {r}
                </p>
              ))}
              <button
                type="button"
                className="primary"
                onClick={() => {
                  if (edit(plan.value.edit)) {
                    setDone(
                      `Written into ${data.section.name}: ${only ? "" : `${plan.value.chords.length} chords`}${choices?.melody ? ", the tune" : ""}${choices?.bass ? `${only ? "" : ", "}the bass` : ""}${choices?.drums ? `${only ? "" : ", "}the drums` : ""}.`,
                    );
                    setFile(null);
                  }
                }}
              >
                Write into {data.section.name}
              </button>
            </>
          )}
        </>
      )}
    </>
  );
}

/** What a track can be used as. A drum track on another channel than the tenth is chosen by hand. */
const usesOf = (drums: boolean, only: Only | undefined): Use[] =>
  only ? ["–", only] : drums ? ["–", "drums"] : ["–", "chords", "melody", "bass", "chords and bass", "drums"];

/** Which lane each drum note goes to: as General MIDI has it, or as is chosen here. */
function DrumMap({
  notes,
  map,
  set,
  add,
  setAdd,
}: {
  notes: { note: number; count: number; lane: Drum | null }[];
  map: Record<number, Drum | null>;
  set(map: Record<number, Drum | null>): void;
  add: boolean;
  setAdd(add: boolean): void;
}) {
  return (
    <>
      <h3>Drum notes</h3>
      <table className="measures drum-map">
        <tbody>
          {notes.map(({ note, count, lane }) => (
            <tr key={note}>
              <th scope="row">
                note {note} <span className="small">{count} ×</span>
              </th>
              <td>
                <select
                  aria-label={`Lane of note ${note}`}
                  value={(note in map ? map[note] : lane) ?? ""}
                  onChange={(e) => set({ ...map, [note]: (e.target.value || null) as Drum | null })}
                >
                  <option value="">left out</option>
                  {DRUMS.map((d) => (
                    <option key={d} value={d}>
                      {DRUM_KINDS[d].title}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <label className="check">
        <input type="checkbox" checked={add} onChange={(e) => setAdd(e.target.checked)} /> join what the lanes have instead of replacing it
      </label>
    </>
  );
}
