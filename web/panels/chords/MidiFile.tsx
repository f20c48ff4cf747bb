import { useState } from "react";
import { importMidi, readMidi, typeset, writeLine, type MidiChoices, type MidiContents, type Problem } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { MIDI_FILES, OpenFile } from "../../ui/OpenFile";

type Use = "–" | "chords" | "melody" | "bass" | "drums" | "chords and bass";

/** A first guess of what each track is: drums by channel, the lowest single line is the bass, the highest one the tune, the rest chords. */
function guess(contents: MidiContents): Record<string, Use> {
  const pitched = contents.tracks.filter((t) => !t.drums);
  const lines = pitched.filter((t) => t.voices <= 2);
  const bass = [...lines].sort((a, b) => a.lowest - b.lowest).find((t) => t.lowest < 48);
  const melody = [...lines].filter((t) => t !== bass).sort((a, b) => b.highest - a.highest)[0];
  return Object.fromEntries(
    contents.tracks.map((t) => [t.id, t.drums ? "drums" : t === bass ? "bass" : t === melody && pitched.length > 1 ? "melody" : "chords"]),
  );
}

/** Takes chords, tune, bass and drums from a Standard MIDI File; what will be written is seen before it is. */
export function MidiFile({ data }: { data: ScoreData }) {
  const { edit, song } = useSong();
  const [file, setFile] = useState<{ name: string; contents: MidiContents } | null>(null);
  const [uses, setUses] = useState<Record<string, Use>>({});
  const [bars, setBars] = useState<[number, number]>([1, 8]);
  const [unit, setUnit] = useState<MidiChoices["unit"]>("bar");
  const [keep, setKeep] = useState({ tempo: true, meter: true, key: true });
  const [problem, setProblem] = useState<Problem | null>(null);
  const [done, setDone] = useState<string | null>(null);
  const open = async (chosen: File) => {
    setDone(null);
    const result = readMidi(new Uint8Array(await chosen.arrayBuffer()));
    setProblem(result.ok ? null : result.error);
    if (!result.ok) return setFile(null);
    setFile({ name: chosen.name, contents: result.value });
    setUses(guess(result.value));
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
    ...keep,
    file: file.name,
  };
  const plan = choices && song ? importMidi(song, data.section.id, file!.contents, choices) : null;
  return (
    <>
      <OpenFile accept={MIDI_FILES} open={(chosen) => void open(chosen)}>
        Open a MIDI file …
      </OpenFile>
      {problem && (
        <p className="problem" role="alert">
          {problem.message}. {problem.hint}
        </p>
      )}
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
                      {(t.drums ? ["–", "drums"] : ["–", "chords", "melody", "bass", "chords and bass"]).map((u) => (
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
            <label>
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
          {plan && !plan.ok && (
            <p className="problem" role="alert">
              {plan.error.message}. {plan.error.hint}
            </p>
          )}
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
                      `Written into ${data.section.name}: ${plan.value.chords.length} chords${choices?.melody ? ", the tune" : ""}${choices?.bass ? ", the bass" : ""}${choices?.drums ? ", the drums" : ""}.`,
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
