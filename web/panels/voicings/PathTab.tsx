import { instrumentOf, TOP_SHAPES, typeset, type Part, type TopShape } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong, type PlayingChange } from "../../store/song";
import { useView } from "../../store/view";
import { moveRegister, soundWhenVoiced, voicingStyleOf, stylesFor } from "./act";
import { Neck } from "./Neck";
import { OtherWays } from "./OtherWays";
import { Weights } from "./Weights";

export function PathTab({ data, part }: { data: ScoreData; part: Part }) {
  const voicing = useView((s) => s.voicing[part.id]);
  const edit = useSong((s) => s.edit);
  const { song, section } = data;
  const styles = stylesFor(song, part);
  const style = voicingStyleOf(song, part);
  const instrument = instrumentOf(part.instrument, song);
  const block = part.link?.kind === "block";
  const events = section.chords.filter((c) => c.symbol !== "N.C.");
  const pinned = events.filter((e) => e.voicings?.[part.id]?.pinned);
  const asked = part.playing.voicing ?? {};
  const set = (change: PlayingChange["voicing"]) => {
    soundWhenVoiced(part.id);
    edit({ do: "setPlaying", part: part.id, voicing: change });
  };
  const register = asked.register ?? 0;
  if (block)
    return (
      <>
        <p className="small">
          {"Every note of the tune has a chord of its own beneath it. It follows the tune and the chords until you detach it under Parts."}
        </p>
        <label className="controls">
          tune
          <TopPart data={data} part={part} />
        </label>
        <label className="controls">
          <input type="checkbox" checked={asked.voices === 5} onChange={(e) => set({ voices: e.target.checked ? 5 : 4 })} /> double the tune
          an octave lower
        </label>
      </>
    );
  return (
    <>
      {voicing && voicing.ids.length > 0 ? (
        <p className="small">
          The cheapest path through {Math.min(...voicing.candidates)}–{Math.max(...voicing.candidates)}{" "}
          {instrument.held.by === "frets" ? "shapes" : "layouts"} of each chord, found exactly. It moves <b>{voicing.motion}</b> semitones
          in all.
        </p>
      ) : (
        <p className="small">Type a chord line in Chords; it is voiced at once.</p>
      )}
      <div className="controls">
        <select aria-label="Style" title="V, Shift V" value={style.id} onChange={(e) => set({ style: e.target.value })}>
          {styles.map((s) => (
            <option key={s.id} value={s.id}>
              {s.title}
            </option>
          ))}
        </select>
        <span className="stepper" role="group" aria-label="Register">
          <button type="button" title="Lower (Shift R)" onClick={() => moveRegister(-1)}>
            lower
          </button>
          <span className="tabular">{register > 0 ? `+${register}` : register}</span>
          <button type="button" title="Higher (R)" onClick={() => moveRegister(1)}>
            higher
          </button>
        </span>
      </div>
      <p className="small">{style.explanation}</p>
      {voicing && voicing.fallbacks.length > 0 && (
        <p className="small" role="status">
          The style does not suit{" "}
          {[...new Set(events.filter((e) => voicing.fallbacks.includes(e.id)).map((e) => typeset(e.symbol)))].join(", ")}:{" "}
          {voicing.fallbacks.length === 1 ? "it is" : "they are"} laid out freely instead.
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
        {!style.fixed && instrument.polyphony > 1 && (
          <label>
            {instrument.held.by === "frets" ? "strings, at least" : "voices"}{" "}
            <select
              aria-label={instrument.held.by === "frets" ? "Strings, at least" : "Number of voices"}
              value={asked.voices ?? 4}
              onChange={(e) => set({ voices: Number(e.target.value) })}
            >
              {[2, 3, 4, 5, 6]
                .filter((n) => n <= instrument.polyphony)
                .map((n) => (
                  <option key={n}>{n}</option>
                ))}
            </select>
          </label>
        )}
        {instrument.held.by === "hands" && (
          <>
            <label>
              hands{" "}
              <select value={asked.hands ?? 2} onChange={(e) => set({ hands: e.target.value === "1" ? 1 : 2 })}>
                <option>1</option>
                <option>2</option>
              </select>
            </label>
            <label>
              one reaches{" "}
              <select value={asked.span ?? instrument.held.span} onChange={(e) => set({ span: Number(e.target.value) })}>
                <option value={12}>an octave</option>
                <option value={14}>a ninth</option>
                <option value={16}>a tenth</option>
                <option value={17}>an eleventh</option>
              </select>
            </label>
          </>
        )}
      </div>
      {instrument.held.by === "frets" && <Neck data={data} part={part} set={set} />}
      <h3>Top line</h3>
      <div className="controls">
        <label>
          goes{" "}
          <select
            aria-label="Shape of the top line"
            value={asked.topShape ?? "smooth"}
            onChange={(e) => set({ topShape: e.target.value as TopShape })}
          >
            {Object.entries(TOP_SHAPES).map(([id, words]) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label>
          follows <TopPart data={data} part={part} />
        </label>
      </div>
      <Tops data={data} part={part} />
      {(part.playing.comp?.rhythm ?? "held") === "held" && (
        <p className="small">
          Threads in the lane: straight where a voice stays, dotted by step, dashed with its semitones where it leaps, ∥5 and ∥8 where two
          go in parallel.
        </p>
      )}
      <OtherWays data={data} part={part} />
      {pinned.length > 0 && (
        <p className="controls">
          <span className="small">
            {pinned.length} of {events.length} chords pinned
          </span>
          <button
            type="button"
            onClick={() =>
              edit({
                do: "all",
                label: "unpin",
                edits: pinned.map((e) => ({ do: "pinVoicing", section: section.id, part: part.id, chord: e.id, pitches: null })),
              })
            }
          >
            Let all go
          </button>
        </p>
      )}
      <h3>What counts</h3>
      <Weights part={part} />
    </>
  );
}

/** The part whose notes the top follows. */
function TopPart({ data, part }: { data: ScoreData; part: Part }) {
  const edit = useSong((s) => s.edit);
  const tunes = data.song.parts.filter((p) => p.id !== part.id && !p.link && p.role !== "drums" && p.role !== "bass");
  return (
    <select
      aria-label="The top follows"
      value={part.link?.top ?? ""}
      onChange={(e) => {
        const { top: _, ...link } = part.link!;
        soundWhenVoiced(part.id);
        edit({ do: "setLink", part: part.id, link: e.target.value ? { ...link, top: e.target.value } : link });
      }}
    >
      <option value="">nothing</option>
      {tunes.map((p) => (
        <option key={p.id} value={p.id}>
          {p.name}
        </option>
      ))}
    </select>
  );
}

/** Which wanted top notes were met, and why some were not. */
function Tops({ data, part }: { data: ScoreData; part: Part }) {
  const voicing = useView((s) => s.voicing[part.id]);
  const set = useView((s) => s.set);
  const tops = Object.entries(voicing?.tops ?? {});
  const missed = Object.entries(voicing?.bottoms ?? {});
  if (!tops.length && !missed.length) return null;
  const nameOf = (id: string) => typeset(data.section.chords.find((c) => c.id === id)?.symbol ?? "");
  const met = tops.filter(([, t]) => t.met !== "no").length;
  const over = tops.filter(([, t]) => t.met === "over");
  const no = tops.filter(([, t]) => t.met === "no");
  return (
    <div role="status" className="small">
      {tops.length > 0 && (
        <p className="flush">
          {met} of {tops.length} wanted top notes are met
          {over.length > 0 &&
            `, ${over.length} of them laid over the chord: ${over.map(([id, t]) => `${typeset(t.wanted)} over ${nameOf(id)}`).join(", ")}`}
          .
        </p>
      )}
      {[
        ...no.map(([id, t]) => [id, `${typeset(t.wanted)} over ${nameOf(id)}: ${t.why}`] as const),
        ...missed.map(([id, p]) => [id, `${typeset(p)} under ${nameOf(id)} cannot be had`] as const),
      ].map(([id, words]) => (
        <p key={id} className="flush problem">
          {words}{" "}
          <button type="button" onClick={() => set({ chord: id, chords: [id], voiceTab: "chord" })}>
            show
          </button>
        </p>
      ))}
    </div>
  );
}
