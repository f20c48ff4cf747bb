import { useState } from "react";
import { drumOf, moveAttacks, moveAway, nearness, parseReference, positionText, type AccentMap } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { auditionEdit, acceptEdit, useStored } from "../hear";
import { Between } from "../../ui/Between";
import { percent } from "../../ui/texts";
import { Refused } from "../../ui/Refused";

/** A rhythm beside one it should not come too close to. */
export function Reference({ data, map }: { data: ScoreData; map: AccentMap }) {
  const edit = useSong((s) => s.edit);
  const { song } = useStored(data.section.id);
  const drums = song.parts.find((p) => p.role === "drums");
  const stored = drums?.playing.drums?.reference;
  const [text, setText] = useState(stored ?? "");
  const [limit, setLimit] = useState(0.7);
  const { rows, step: length } = map;
  const [chosen, setChosen] = useState("");
  const id = rows.some((r) => r.id === chosen) ? chosen : (rows.find((r) => drumOf(r.id) === "kick")?.id ?? rows[0]?.id ?? "");
  const reference = text.trim() ? parseReference(text) : null;
  // What is struck in at least every sixth bar belongs to the rhythm.
  const own = rows.find((r) => r.id === id)!.strength.map((s) => s > 0.15);
  const near = reference?.ok ? nearness(own, reference.value) : null;
  const close = near !== null && Math.max(near.share, near.rotatedShare) >= limit;
  const moves = near && reference?.ok && near.share >= limit ? moveAway(own, reference.value, limit) : [];
  // What lies beyond the bar repeats with it.
  const inBar = moves.filter(([a, b]) => a < own.length && b < own.length);
  const change = inBar.length ? moveAttacks(song, data.section.id, id, inBar, own.length, length) : null;
  /** The reference stays with the song. */
  const keep = (reference: string) =>
    drums &&
    reference.trim() !== (stored ?? "") &&
    edit({ do: "setPlaying", part: drums.id, drums: { reference: reference.trim() || null } });
  const where = (step: number) => positionText(data.meter, step * length).replace("bar 1, ", "");
  return (
    <>
      <h3>Too close to a known rhythm?</h3>
      <div className="controls">
        <label>
          <span className="muted">compare</span>
          <select aria-label="Rhythm to compare" value={id} onChange={(e) => setChosen(e.target.value)}>
            {rows.map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="controls">
        <label>
          <span className="muted">with</span>
          <input
            aria-label="Reference rhythm"
            placeholder="x..x..x...x.x..."
            value={text}
            style={{ width: 180 }}
            onKeyDown={(e) => e.stopPropagation()}
            onChange={(e) => setText(e.target.value)}
            onBlur={() => keep(text)}
          />
        </label>
        <button
          type="button"
          title="The rhythm as it stands now becomes the reference"
          onClick={() => {
            const now = own.map((x) => (x ? "x" : ".")).join("");
            setText(now);
            keep(now);
          }}
        >
          this one
        </button>
      </div>
      {reference && !reference.ok && <Refused problem={reference.error} />}
      {near && (
        <>
          <Between from="too close from" to={percent(limit)} label="Too close from" value={limit} min={0.3} step={0.05} set={setLimit} />
          <p role="status">
            <b className={close ? "severity warning" : ""}>{close ? "Too close" : "Far enough"}</b>: {percent(near.share)} of the attacks
            are shared
            {near.rotatedBy > 0 &&
              near.rotatedShare > near.share &&
              `, ${percent(near.rotatedShare)} when it is turned by ${near.rotatedBy} steps`}
            .{" "}
            <span className="small">
              {near.swaps} {near.swaps === 1 ? "step" : "steps"} of moving make one of the other
              {near.together.length > 0 && `; together at ${near.together.slice(0, 6).map(where).join(", ")}`}.
            </span>
          </p>
          {change && (
            <p className="offer-head">
              <span>
                Move{" "}
                {inBar
                  .slice(0, 3)
                  .map(([a, b]) => `${where(a)} to ${where(b)}`)
                  .join(", ")}
              </span>
              <span className="offer-buttons">
                <button type="button" onClick={() => auditionEdit(change, "moved away", `away:${id}`, 0, data.length)}>
                  Hear
                </button>
                <button type="button" onClick={() => acceptEdit(change)}>
                  Take
                </button>
              </span>
            </p>
          )}
        </>
      )}
      <p className="small">
        x is struck, a point is silent, one step{" "}
        {length === 120 ? "a sixteenth" : length === 80 ? "a sixteenth triplet" : "a twelfth of a beat"}. Rhythms of your own to stay clear
        of; nothing is compared unless you write it here.
      </p>
    </>
  );
}
