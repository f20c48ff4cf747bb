import {
  applyEdit,
  instrumentOf,
  pitchMidi,
  TERM_NAMES,
  TERMS,
  twoHands,
  typeset,
  WIDE_REACH,
  type Part,
  type PitchName,
  type Shape,
} from "../../../core/src/index";
import { audition } from "../../audio/sound";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { ChordName } from "../../ui/ChordName";
import { FretDiagram } from "../../ui/FretDiagram";
import { InPlace } from "../../ui/InPlace";
import { around } from "../hear";
import { soundPitches, soundWhenVoiced, invertChord } from "./act";
import { oneDecimal, typedPitch } from "../../ui/texts";

const SPANS: Record<number, string> = {
  12: "an octave",
  13: "a minor ninth",
  14: "a ninth",
  15: "a minor tenth",
  16: "a tenth",
  17: "an eleventh",
};

/** One chord of a part: what was chosen, what it takes to play, what else there is. */
export function ChordTab({ data, part }: { data: ScoreData; part: Part }) {
  const { chord: chordId, preview } = useView();
  const voicing = useView((s) => s.voicing[part.id]);
  const edit = useSong((s) => s.edit);
  const say = useSong((s) => s.say);
  const events = data.section.chords.filter((c) => c.symbol !== "N.C.");
  const event = events.find((c) => c.id === chordId) ?? events[0];
  const index = event && voicing ? voicing.ids.indexOf(event.id) : -1;
  const chosen = index >= 0 ? voicing!.chords[index]! : null;
  if (!event || !chosen) return <p className="small">Type a chord line in Chords, then choose a chord above the lanes.</p>;
  const section = data.section.id;
  const own = event.voicings?.[part.id];
  const pinned = own?.pinned ?? false;
  const pin = (pitches: PitchName[] | null) => edit({ do: "pinVoicing", section, part: part.id, chord: event.id, pitches });
  const instrument = instrumentOf(part.instrument, data.song);
  const alternatives = voicing!.alternatives[event.id] ?? [];
  const hearIt = (pitches: PitchName[], id: string) => {
    const result = applyEdit(data.song, { do: "pinVoicing", section, part: part.id, chord: event.id, pitches });
    const range = around(data.section, data.meter, event.start);
    if (result.ok) void audition(result.value.song, id, id, range.from, range.to);
  };
  const setEnd = (end: "top" | "bottom", text: string): boolean => {
    if (/^(any|-|–)?$/i.test(text.trim())) return edit({ do: "pinEnds", section, part: part.id, chord: event.id, [end]: null });
    const name = typedPitch(text, say);
    if (!name) return false;
    soundWhenVoiced(part.id);
    return edit({ do: "pinEnds", section, part: part.id, chord: event.id, [end]: name });
  };
  return (
    <>
      <div className="chord-head">
        <h3>
          <ChordName symbol={event.symbol} />
        </h3>
        <span className="pitches">{chosen.pitches.map(typeset).join(" ")}</span>
        {pinned && <span className="pin-mark">pinned</span>}
      </div>
      <p className="small flush">
        {chosen.motion === null
          ? "Begins the path."
          : `From the chord before: moves ${chosen.motion} semitones, keeps ${chosen.kept} ${chosen.kept === 1 ? "tone" : "tones"}.`}
      </p>
      <div className="controls">
        <span className="stepper" role="group" aria-label="Turn">
          <button type="button" title="Shift I" onClick={() => invertChord(-1)}>
            {instrument.held.by === "frets" ? "lower shape" : "invert down"}
          </button>
          <button type="button" title="I" onClick={() => invertChord(1)}>
            {instrument.held.by === "frets" ? "higher shape" : "invert up"}
          </button>
        </span>
        <button type="button" onClick={() => soundPitches(part.id, chosen.pitches)}>
          Hear it
        </button>
        {pinned ? (
          <button type="button" onClick={() => pin(null)}>
            Unpin
          </button>
        ) : (
          <button type="button" onClick={() => pin(chosen.pitches)}>
            Pin
          </button>
        )}
      </div>
      <div className="controls">
        <span className="inline-field">
          top note <InPlace label="Wanted top note" value={own?.top ? typeset(own.top) : "any"} commit={(t) => setEnd("top", t)} />
        </span>
        <span className="inline-field">
          lowest{" "}
          <InPlace label="Wanted lowest note" value={own?.bottom ? typeset(own.bottom) : "any"} commit={(t) => setEnd("bottom", t)} />
        </span>
      </div>
      {voicing!.tops[event.id]?.met === "no" && (
        <p className="small problem flush">
          {typeset(voicing!.tops[event.id]!.wanted)} on top cannot be had: {voicing!.tops[event.id]!.why}.
        </p>
      )}
      {instrument.held.by === "hands" && <HandsOf pitches={chosen.pitches} part={part} easier={voicing!.easier[event.id]} pin={pin} />}
      {chosen.shape && <NeckOf shape={chosen.shape} before={voicing!.chords[index - 1]?.shape} />}
      <div className="row-head">
        <h4>Other layouts here</h4>
      </div>
      <ol className="choices" aria-label="Other layouts">
        {alternatives.map((a, i) => {
          const same = a.pitches.join() === chosen.pitches.join();
          const id = `voicing:${event.id}:${a.pitches.join()}`;
          return (
            <li key={a.pitches.join() + (a.shape?.frets.join() ?? "")} className={same ? "current" : ""}>
              {a.shape && <FretDiagram shape={a.shape} />}
              <span className="line-title">
                <span className="pitches">{a.pitches.map(typeset).join(" ")}</span>
                <span className="small">{same ? "chosen" : a.trades.join(", ") || "nearly the same"}</span>
              </span>
              <span className="cost" title="Cost beside its present neighbors, compared with the best">
                {i === 0 ? "best" : `+${oneDecimal(a.cost - alternatives[0]!.cost)}`}
              </span>
              <button type="button" aria-pressed={preview?.id === id} onClick={() => hearIt(a.pitches, id)}>
                Hear
              </button>
              <button
                type="button"
                disabled={same && pinned}
                onClick={() => {
                  pin(a.pitches);
                  soundPitches(part.id, a.pitches);
                }}
              >
                Pin
              </button>
            </li>
          );
        })}
      </ol>
      <p className="small">A pinned layout stays; the rest of the path is found anew around it. {pinned && "This one is pinned."}</p>
      <table className="measures">
        <tbody>
          {TERM_NAMES.filter((t) => (chosen.terms[t] ?? 0) >= 0.05).map((t) => (
            <tr key={t}>
              <th scope="row">{TERMS[t]}</th>
              <td>{oneDecimal(chosen.terms[t] ?? 0)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <th scope="row">cost of this chord</th>
            <td>{oneDecimal(chosen.cost)}</td>
          </tr>
        </tfoot>
      </table>
    </>
  );
}

/** What each hand has to do, and an easier layout where it must stretch. */
function HandsOf({
  pitches,
  part,
  easier,
  pin,
}: {
  pitches: PitchName[];
  part: Part;
  easier: PitchName[] | undefined;
  pin(pitches: PitchName[]): boolean;
}) {
  const count = part.playing.voicing?.hands ?? 2;
  const of = (list: readonly PitchName[]) =>
    twoHands(
      list.map(pitchMidi).sort((a, b) => a - b),
      127,
      count,
    );
  const hands = of(pitches);
  if (!hands) return <p className="small problem flush">More than five notes for one hand.</p>;
  const sorted = [...pitches].sort((a, b) => pitchMidi(a) - pitchMidi(b));
  const left = sorted.slice(0, hands.left.fingers);
  const right = sorted.slice(hands.left.fingers);
  const words = (name: string, list: readonly PitchName[], span: number) =>
    `${name} ${list.map(typeset).join(" ")} (${list.length} ${list.length === 1 ? "finger" : `fingers over ${span} semitones`})`;
  const wide = Math.max(hands.left.span, hands.right.span);
  return (
    <p className="small flush">
      {left.length > 0 && `${words("Left hand", left, hands.left.span)}; `}
      {right.length > 0 && words(left.length ? "right hand" : "Right hand", right, hands.right.span)}.
      {hands.stretch !== "none" && (
        <span className="caution">
          {" "}
          A stretch of {SPANS[wide] ?? `${wide} semitones`}: not every hand reaches it. Roll it, or leave a note out; stop when it hurts,
          and ask a teacher or a hand professional if it stays.{" "}
          {easier && (
            <button type="button" onClick={() => pin(easier) && soundPitches(part.id, easier)}>
              Easier: {easier.map(typeset).join(" ")}
            </button>
          )}
        </span>
      )}
    </p>
  );
}

/** How a shape is held. */
function NeckOf({ shape, before }: { shape: Shape; before: Shape | undefined }) {
  const move = before && before.position && shape.position ? Math.abs(before.position - shape.position) : 0;
  return (
    <div className="neck-of">
      <FretDiagram shape={shape} scale={1.5} />
      <p className="small flush">
        {shape.frets.map((f) => f ?? "x").join(" ")}: {shape.fingers} {shape.fingers === 1 ? "finger" : "fingers"}
        {shape.barre ? `, a barre at fret ${shape.barre.fret}` : ""}
        {shape.span ? `, ${shape.span + 1} frets (${Math.round(shape.reach)} mm)` : ""}
        {shape.muted ? `, ${shape.muted} string kept silent inside` : ""}.{" "}
        {move ? `The hand moves ${move} ${move === 1 ? "fret" : "frets"} to it.` : ""}
        {shape.reach > WIDE_REACH && (
          <span className="caution"> A wide stretch of the left hand: warm up, do not force it, or take a shape higher on the neck.</span>
        )}
      </p>
    </div>
  );
}
