import { type Part, type TermName, Voicing } from "../../../core/src/index";
import { voicingStyleOf } from "../../app/commands/voicings";
import { useResults } from "../../app/store/results";
import { edit, useSong } from "../../app/store/song";
import { Slider } from "../../kit/Slider";
import { oneDecimal } from "../../kit/texts";
import { Button } from "../../kit/Button";

/** Weights of the terms, and what each costs over the whole path. */
export function Weights({ part }: { part: Part }) {
  const voicing = useResults((s) => s.voicing[part.id]);
  const weights = part.playing.voicing?.weights ?? {};
  const weight = (t: TermName) => weights[t] ?? 1;
  // What a style leaves out of account has no weight to be moved.
  const song = useSong((s) => s.song);
  const style = song && voicingStyleOf(song, part);
  const counts = (t: TermName) => style?.weights?.[t] !== 0;
  return (
    <>
      <div className="weights">
        {Voicing.TERM_NAMES.filter((t) => counts(t)).map((t) => (
          <Slider
            key={t}
            className={`slider${weight(t) === 0 ? " zero" : ""}`}
            label={`Weight of ${Voicing.TERMS[t]}`}
            title={`× ${weight(t)}`}
            from={Voicing.TERMS[t]}
            to={oneDecimal(voicing?.terms[t] ?? 0)}
            value={weight(t)}
            max={3}
            step={0.25}
            set={(value, quiet) =>
              edit({ do: "setPlaying", part: part.id, voicing: { weights: { [t]: value } } }, { quiet })
            }
          />
        ))}
        <p className="slider total">
          <span>cost of the path</span>
          <span />
          <b className="tabular">{oneDecimal(voicing?.cost ?? 0)}</b>
        </p>
      </div>
      {Object.keys(weights).length > 0 && (
        <Button onClick={() => edit({ do: "setPlaying", part: part.id, voicing: { weights: null } })}>
          Back to the usual weights
        </Button>
      )}
    </>
  );
}
