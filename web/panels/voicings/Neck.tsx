import { useState } from "react";
import { instrumentOf, parseTuning, typeset, type CapoChoice, type Part } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import type { PlayingChange } from "../../store/song";
import { InPlace } from "../../ui/InPlace";
import { workers } from "../../workers/client";
import { oneDecimal } from "../../ui/texts";

/** Tuning and capo of a fretted part. */
export function Neck({ data, part, set }: { data: ScoreData; part: Part; set(voicing: PlayingChange["voicing"]): void }) {
  const [choices, setChoices] = useState<CapoChoice[] | null>(null);
  const [busy, setBusy] = useState(false);
  const held = instrumentOf(part.instrument, data.song).held;
  if (held.by !== "frets") return null;
  const find = async () => {
    setBusy(true);
    const found = await workers.writer.capo(part.id);
    setBusy(false);
    if (found.ok) setChoices(found.value);
    else useSong.getState().say(found.error);
  };
  return (
    <>
      <div className="controls">
        <label>
          capo{" "}
          <select aria-label="Capo" value={part.playing.voicing?.capo ?? 0} onChange={(e) => set({ capo: Number(e.target.value) })}>
            {Array.from({ length: 13 }, (_, i) => (
              <option key={i} value={i}>
                {i === 0 ? "none" : `fret ${i}`}
              </option>
            ))}
          </select>
        </label>
        <button type="button" disabled={busy} onClick={() => void find()}>
          {busy ? "Trying capos …" : "Easiest for the song"}
        </button>
        <span className="inline-field">
          strings{" "}
          <InPlace
            label="Tuning, lowest drawn string first"
            value={(part.playing.voicing?.tuning ?? held.strings).join(" ")}
            commit={(text) => {
              const parsed = text.trim() ? parseTuning(text, held.strings) : null;
              if (parsed && !parsed.ok) {
                useSong.getState().say(parsed.error);
                return false;
              }
              set({ tuning: parsed ? parsed.value : null });
              return true;
            }}
          />
        </span>
      </div>
      {choices && (
        <ol className="choices" aria-label="Capos">
          {choices.slice(0, 4).map((c) => (
            <li key={c.capo} className={c.capo === (part.playing.voicing?.capo ?? 0) ? "current" : ""}>
              <span className="line-title">
                {c.capo ? `Capo ${c.capo}` : "No capo"}: think in {typeset(c.keyOfShapes)}
                <span className="small">
                  strain {oneDecimal(c.strain)}, {c.barres} {c.barres === 1 ? "barre" : "barres"}, {c.open} open strings
                </span>
              </span>
              <button type="button" onClick={() => set({ capo: c.capo })}>
                Take
              </button>
            </li>
          ))}
        </ol>
      )}
    </>
  );
}
