import { useState } from "react";
import { DRUM_KINDS, DRUMS, positionText, roll, TUNABLE, typeset, type Drum, type Hit, type Lane } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { drumName } from "../../score/DrumLane";
import { useSong } from "../../store/song";
import { InPlace } from "../../ui/InPlace";
import { typedPitch } from "../../ui/texts";

const ms = (ticks: number, tempo: number): number => Math.round((ticks * 125) / tempo);

/** One lane: how it is called, mapped and played, and its single hits. */
export function LaneTab({ data }: { data: ScoreData }) {
  const { edit, say } = useSong();
  const { section, song, meter } = data;
  const [drum, setDrum] = useState<Drum>("closedHat");
  const lane: Lane = section.groove.lanes.find((l) => l.drum === drum) ?? { drum, hits: [] };
  const set = (change: Extract<Parameters<typeof edit>[0], { do: "setLane" }>["change"]) =>
    edit({ do: "setLane", section: section.id, drum, change });
  const change = (hit: Hit, fields: Extract<Parameters<typeof edit>[0], { do: "changeHit" }>["change"]) =>
    edit({ do: "changeHit", section: section.id, drum, start: hit.start, change: fields });
  const swing = lane.swing ?? song.swing.ratio;
  const shownHits = lane.hits.filter((h) => h.start < 2 * meter.bar);
  const last = (section.bars - 1) * meter.bar + meter.beats.at(-1)!.start;
  return (
    <>
      <div className="controls">
        <select aria-label="Lane" value={drum} onChange={(e) => setDrum(e.target.value as Drum)}>
          {DRUMS.map((d) => (
            <option key={d} value={d}>
              {drumName(section, d)}
              {section.groove.lanes.some((l) => l.drum === d && l.hits.length) ? "" : " (empty)"}
            </option>
          ))}
        </select>
        {!section.groove.lanes.some((l) => l.drum === drum) && (
          <button type="button" onClick={() => set({})}>
            Add the lane
          </button>
        )}
      </div>
      <table className="measures facts">
        <tbody>
          <tr>
            <th scope="row">name</th>
            <td>
              <InPlace label="Name of the lane" value={lane.name ?? DRUM_KINDS[drum].title} commit={(name) => set({ name })} />
            </td>
          </tr>
          <tr>
            <th scope="row">MIDI note</th>
            <td>
              <InPlace
                label="MIDI note of the lane"
                value={String(lane.note ?? DRUM_KINDS[drum].note)}
                commit={(text) => set({ note: Number(text) === DRUM_KINDS[drum].note ? null : Number(text) })}
              />
            </td>
          </tr>
        </tbody>
      </table>
      <label className="slider">
        <span>swing</span>
        <input
          type="range"
          min={50}
          max={75}
          step={1}
          value={Math.round(swing * 100)}
          aria-label="Swing of the lane"
          onChange={(e) => set({ swing: Number(e.target.value) / 100 })}
        />
        <span className="tabular">
          {Math.round(swing * 100)} % {lane.swing === undefined ? "(song)" : ""}
        </span>
      </label>
      <label className="slider">
        <span>late or early</span>
        <input
          type="range"
          min={-60}
          max={60}
          step={2}
          value={lane.offset ?? 0}
          aria-label="The lane late or early"
          onChange={(e) => set({ offset: Number(e.target.value) || null })}
        />
        <span className="tabular">{ms(lane.offset ?? 0, song.tempo)} ms</span>
      </label>
      <div className="controls">
        {lane.swing !== undefined && (
          <button type="button" onClick={() => set({ swing: null })}>
            Swing with the song
          </button>
        )}
        {TUNABLE.includes(drum) && (
          <label>
            <input type="checkbox" checked={lane.tuned ?? false} onChange={(e) => set({ tuned: e.target.checked || null })} /> tuned
          </label>
        )}
        <button
          type="button"
          title="Thirty-second notes over the last beat, from soft to loud"
          onClick={() =>
            set({
              hits: [...lane.hits.filter((h) => h.start < last), ...roll(last, section.bars * meter.bar, 60, 36, 112)],
            })
          }
        >
          Roll into the next bar
        </button>
        <button type="button" disabled={!lane.hits.length} onClick={() => set({ hits: [] })}>
          Empty it
        </button>
      </div>
      <h3>Hits of the first two bars</h3>
      {shownHits.length ? (
        <table className="measures hits">
          <thead>
            <tr>
              <th scope="col">where</th>
              <th scope="col">loud</th>
              <th scope="col">off the grid</th>
              {drum === "openHat" && <th scope="col">rings</th>}
              {lane.tuned && <th scope="col">pitch</th>}
            </tr>
          </thead>
          <tbody>
            {shownHits.map((h) => {
              const where = positionText(meter, h.start);
              return (
                <tr key={h.start}>
                  <th scope="row">{where}</th>
                  <td>
                    <InPlace
                      label={`Velocity at ${where}`}
                      value={String(h.velocity)}
                      commit={(t) => Number.isFinite(Number(t)) && change(h, { velocity: Math.round(Number(t)) })}
                    />
                  </td>
                  <td>
                    <InPlace
                      label={`Milliseconds late at ${where}`}
                      value={String(ms(h.offset ?? 0, song.tempo))}
                      commit={(t) =>
                        Number.isFinite(Number(t)) && change(h, { offset: Math.round((Number(t) * song.tempo) / 125) || null })
                      }
                      suffix="ms"
                    />
                  </td>
                  {drum === "openHat" && (
                    <td>
                      <InPlace
                        label={`Length in beats at ${where}`}
                        value={h.duration ? String(h.duration / meter.beats[0]!.duration) : "free"}
                        commit={(t) =>
                          t === "free"
                            ? change(h, { duration: null })
                            : Number(t) > 0 && change(h, { duration: Math.round(Number(t) * meter.beats[0]!.duration) })
                        }
                      />
                    </td>
                  )}
                  {lane.tuned && (
                    <td>
                      <InPlace
                        label={`Pitch at ${where}`}
                        value={h.pitch ? typeset(h.pitch) : "–"}
                        commit={(t) => {
                          const pitch = typedPitch(t, say);
                          return pitch !== null && change(h, { pitch });
                        }}
                      />
                    </td>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      ) : (
        <p className="small">No hit yet. Add the lane and paint in its row.</p>
      )}
    </>
  );
}
