import { DRUM_KINDS, drumOf, drumPlayer, DRUMS, PATTERNS, stepsOf, type Part } from "../../../core/src/index";
import type { PlayingChange } from "../../store/song";
import type { ScoreData } from "../../score/data";

const NEXT: Record<string, string> = { ".": "x", x: "X", X: "-", "-": "." };
const CELL: Record<string, string> = { ".": "silent", x: "struck", X: "struck hard", "-": "held on" };

/** A rhythm by name, of one's own, or a drum's; anticipation and length. */
export function Rhythm({ data, part, set }: { data: ScoreData; part: Part; set(comp: PlayingChange["comp"]): boolean }) {
  const rhythm = part.playing.comp?.rhythm ?? "held";
  const follow = part.playing.comp?.follow;
  const named = PATTERNS.some((p) => p.id === rhythm);
  const steps = stepsOf(rhythm, data.meter);
  const value = follow ? drumPlayer(follow) : named ? rhythm : "own";
  const beats = data.meter.beats.map((b) => b.start / 120);
  const bar = data.meter.bar / 120;
  return (
    <>
      <div className="controls">
        <label>
          rhythm{" "}
          <select
            aria-label={`Rhythm of ${part.name}`}
            value={value}
            onChange={(e) => {
              const v = e.target.value;
              const drum = drumOf(v);
              if (drum) set({ follow: drum });
              else set({ follow: null, rhythm: v === "own" ? steps : v });
            }}
          >
            {PATTERNS.map((p) => (
              <option key={p.id} value={p.id}>
                {p.title}
              </option>
            ))}
            <option value="own">Your own</option>
            {DRUMS.filter((d) => data.section.groove.lanes.some((l) => l.drum === d)).map((d) => (
              <option key={d} value={drumPlayer(d)}>
                With the {DRUM_KINDS[d].title}
              </option>
            ))}
          </select>
        </label>
        {value !== "held" && (
          <label title="An attack in the last eighth before a change plays the next chord">
            <input
              type="checkbox"
              checked={part.playing.comp?.anticipate === true}
              onChange={(e) => set({ anticipate: e.target.checked || null })}
            />{" "}
            anticipates
          </label>
        )}
      </div>
      {!follow && rhythm !== "held" && (
        <div
          className="step-grid"
          style={{ gridTemplateColumns: `repeat(${bar <= 16 ? bar : bar / 2}, 1fr)` }}
          role="group"
          aria-label={`Steps of ${part.name}, sixteenths`}
        >
          {[...steps].map((mark, i) => (
            <button
              key={i}
              type="button"
              className={`step ${mark === "." ? "rest" : mark === "-" ? "hold" : mark === "X" ? "hard" : "soft"}${beats.includes(i % bar) ? " beat" : ""}`}
              aria-label={`Step ${i + 1}: ${CELL[mark]}`}
              onClick={() => set({ rhythm: steps.slice(0, i) + NEXT[mark]! + steps.slice(i + 1) })}
            />
          ))}
        </div>
      )}
      {!follow && rhythm !== "held" && (
        <div className="controls">
          <button type="button" onClick={() => set({ rhythm: steps + steps })} disabled={steps.length * 2 > 256}>
            Twice as long
          </button>
          {steps.length > bar && (
            <button type="button" onClick={() => set({ rhythm: steps.slice(0, bar) })}>
              One bar
            </button>
          )}
          <span className="small">Click a step: struck, hard, held on, silent.</span>
        </div>
      )}
      {value !== "held" && (
        <label className="slider">
          <span>length</span>
          <input
            type="range"
            min={20}
            max={100}
            step={5}
            value={part.playing.comp?.gate ?? 100}
            aria-label={`Length of ${part.name}`}
            onChange={(e) => set({ gate: Number(e.target.value) })}
          />
          <span className="tabular">{part.playing.comp?.gate ?? 100} %</span>
        </label>
      )}
    </>
  );
}
