import { Frets, Instrument, type Part, Pitch, type PitchName, type Shape } from "../../../core/src/index";
import { soundPitches } from "../../app/commands/voicings";
import { FretDiagram } from "../../kit/FretDiagram";
import { Button } from "../../kit/Button";

const SPANS: Record<number, string> = {
  12: "an octave",
  13: "a minor ninth",
  14: "a ninth",
  15: "a minor tenth",
  16: "a tenth",
  17: "an eleventh",
};

interface HandsProps {
  pitches: PitchName[];
  part: Part;
  easier: PitchName[] | undefined;
  pin(pitches: PitchName[]): boolean;
}

/** What each hand has to do, and an easier layout where it must stretch. */
export function HandsOf({ pitches, part, easier, pin }: HandsProps) {
  const sorted = [...pitches].sort((a, b) => Pitch.midi(a) - Pitch.midi(b));
  const hands = Instrument.hands(sorted.map(Pitch.midi), 127, part.playing.voicing?.hands ?? 2);
  if (!hands) return <p className="small problem flush">More than five notes for one hand.</p>;
  const left = sorted.slice(0, hands.left.fingers);
  const right = sorted.slice(hands.left.fingers);
  const words = (name: string, list: readonly PitchName[], span: number) =>
    `${name} ${list.map(Pitch.typeset).join(" ")} ` +
    `(${list.length === 1 ? "1 finger" : `${list.length} fingers over ${span} semitones`})`;
  const wide = Math.max(hands.left.span, hands.right.span);
  return (
    <p className="small flush">
      {left.length > 0 && `${words("Left hand", left, hands.left.span)}; `}
      {right.length > 0 && words(left.length ? "right hand" : "Right hand", right, hands.right.span)}.
      {hands.stretch !== "none" && (
        <span className="caution">
          {" "}
          A stretch of {SPANS[wide] ?? `${wide} semitones`}: not every hand reaches it. Roll it, or leave a note out;
          stop when it hurts, and ask a teacher or a hand professional if it stays.{" "}
          {easier && (
            <Button onClick={() => pin(easier) && soundPitches(part.id, easier)}>
              Easier: {easier.map(Pitch.typeset).join(" ")}
            </Button>
          )}
        </span>
      )}
    </p>
  );
}

/** How a shape is held. */
export function NeckOf({ shape, before }: { shape: Shape; before: Shape | undefined }) {
  const move = before && before.position && shape.position ? Math.abs(before.position - shape.position) : 0;
  return (
    <div className="neck-of">
      <FretDiagram shape={shape} scale={1.5} />
      <p className="small flush">
        {shape.frets.map((f) => f ?? "x").join(" ")}: {shape.fingers} {shape.fingers === 1 ? "finger" : "fingers"}
        {shape.barre ? `, a barre at fret ${shape.barre.fret}` : ""}
        {shape.span ? `, ${shape.span + 1} frets (${Math.round(shape.reach)} mm)` : ""}
        {shape.muted ? `, ${shape.muted} ${shape.muted === 1 ? "string" : "strings"} kept silent inside` : ""}.{" "}
        {move ? `The hand moves ${move} ${move === 1 ? "fret" : "frets"} to it.` : ""}
        {shape.reach > Frets.WIDE_REACH && (
          <span className="caution">
            {" "}
            A wide stretch of the left hand: warm up, do not force it, or take a shape higher on the neck.
          </span>
        )}
      </p>
    </div>
  );
}
