import { applyEdit, pitchMidi, TERMS, typeset, VOICING_STYLES, type TermName } from "../../core/src/index";
import { hear, touch } from "../audio/sound";
import type { ScoreData } from "../score/data";
import { useSong } from "../store/song";
import { useView } from "../store/view";
import { ChordName } from "../ui/ChordName";
import { around } from "./hear";

const shown = (n: number): string => (Math.round(n * 10) / 10).toFixed(1);

export function VoicingsPanel({ data }: { data: ScoreData }) {
  const { voicing, chord: chordId, preview } = useView();
  const edit = useSong((s) => s.edit);
  const part = data.song.parts.find((p) => p.link);
  if (!part) return <p>This song has no chord part.</p>;
  const style = VOICING_STYLES.find((s) => s.id === part.settings.style) ?? VOICING_STYLES[0]!;
  const events = data.section.chords.filter((c) => c.symbol !== "N.C.");
  const event = events.find((c) => c.id === chordId) ?? events[0];
  const index = event && voicing ? voicing.ids.indexOf(event.id) : -1;
  const chosen = index >= 0 ? voicing!.chords[index]! : null;
  const pinned = event?.voicings?.[part.id]?.pinned ?? false;
  const pin = (pitches: string[] | null) =>
    event && edit({ do: "pinVoicing", section: data.section.id, part: part.id, chord: event.id, pitches });
  const hearIt = (pitches: string[], id: string) => {
    if (!event) return;
    const result = applyEdit(data.song, { do: "pinVoicing", section: data.section.id, part: part.id, chord: event.id, pitches });
    const range = around(data.section, data.meter, event.start);
    if (result.ok) void hear(result.value.song, id, id, range.from, range.to);
  };
  const alternatives = event && voicing ? (voicing.alternatives[event.id] ?? []) : [];
  const span = chosen ? Math.max(...chosen.pitches.map(pitchMidi)) - Math.min(...chosen.pitches.map(pitchMidi)) : 0;
  return (
    <>
      <h2>Voicings, {data.section.name.toLowerCase()}</h2>
      {voicing && voicing.ids.length > 0 ? (
        <p className="small">
          The cheapest path through {Math.min(...voicing.candidates)}–{Math.max(...voicing.candidates)} layouts of each chord, found
          exactly. It moves <b>{voicing.motion}</b> semitones in all.
        </p>
      ) : (
        <p className="small">Type a chord line in Chords; it is voiced at once.</p>
      )}
      <div className="controls">
        <select
          aria-label="Style"
          value={style.id}
          onChange={(e) => edit({ do: "setPart", part: part.id, settings: { style: e.target.value } })}
        >
          {VOICING_STYLES.map((s) => (
            <option key={s.id} value={s.id}>
              {s.title}
            </option>
          ))}
        </select>
      </div>
      <p className="small">{style.explanation}</p>
      {voicing && voicing.instead.length > 0 && (
        <p className="small" role="status">
          The style does not suit{" "}
          {[...new Set(events.filter((e) => voicing.instead.includes(e.id)).map((e) => typeset(e.symbol)))].join(", ")}:{" "}
          {voicing.instead.length === 1 ? "it is" : "they are"} laid out freely instead.
        </p>
      )}
      <div className="controls">
        <label>
          <input
            type="checkbox"
            checked={part.link?.loop ?? false}
            onChange={(e) => edit({ do: "setPart", part: part.id, loop: e.target.checked })}
          />{" "}
          joins its own beginning
        </label>
        {!style.fixed && (
          <label>
            voices{" "}
            <select
              value={Number(part.settings.voices ?? 4)}
              onChange={(e) => edit({ do: "setPart", part: part.id, settings: { voices: Number(e.target.value) } })}
            >
              {[3, 4, 5].map((n) => (
                <option key={n}>{n}</option>
              ))}
            </select>
          </label>
        )}
      </div>
      {event && chosen && (
        <>
          <h3>
            <ChordName symbol={event.symbol} /> <span className="pitches">{chosen.pitches.map(typeset).join(" ")}</span>
          </h3>
          <p className="small">
            {chosen.motion === null
              ? "Begins the path."
              : `From the chord before: moves ${chosen.motion} semitones, keeps ${chosen.kept} ${chosen.kept === 1 ? "tone" : "tones"}.`}{" "}
            {span > 24 && "Wide for two hands: leave out what strains."}
          </p>
          <table className="measures">
            <tbody>
              {(Object.keys(TERMS) as TermName[]).map((t) => (
                <tr key={t} className={chosen.terms[t] ? "" : "zero"}>
                  <th scope="row">{TERMS[t]}</th>
                  <td>{shown(chosen.terms[t] ?? 0)}</td>
                </tr>
              ))}
            </tbody>
            <tfoot>
              <tr>
                <th scope="row">cost of this chord</th>
                <td>{shown(chosen.cost)}</td>
              </tr>
            </tfoot>
          </table>
          <div className="row-head">
            <h4>Other layouts here</h4>
            {pinned && (
              <button type="button" onClick={() => pin(null)}>
                Unpin
              </button>
            )}
          </div>
          <ol className="choices">
            {alternatives.map((a, i) => {
              const same = a.pitches.join() === chosen.pitches.join();
              const id = `voicing:${event.id}:${a.pitches.join()}`;
              return (
                <li key={a.pitches.join()} className={same ? "current" : ""}>
                  <span className="pitches">{a.pitches.map(typeset).join(" ")}</span>
                  <span className="cost" title="Cost beside its present neighbors, compared with the best">
                    {i === 0 ? "best" : `+${shown(a.cost - alternatives[0]!.cost)}`}
                  </span>
                  <button type="button" aria-pressed={preview?.id === id} onClick={() => hearIt(a.pitches, id)}>
                    Hear
                  </button>
                  <button
                    type="button"
                    disabled={same && pinned}
                    onClick={() => {
                      pin(a.pitches);
                      for (const p of a.pitches) void touch(part.id, pitchMidi(p));
                    }}
                  >
                    Pin
                  </button>
                </li>
              );
            })}
          </ol>
          <p className="small">A pinned layout stays; the rest of the path is found anew around it. {pinned && "This one is pinned."}</p>
        </>
      )}
    </>
  );
}
