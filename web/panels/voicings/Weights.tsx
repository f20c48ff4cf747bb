import { useRef } from "react";
import { TERM_NAMES, TERMS, type Part, type TermName } from "../../../core/src/index";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { oneDecimal } from "../../ui/texts";

/** Weights of the terms, and what each costs over the whole path. */
export function Weights({ part }: { part: Part }) {
  const edit = useSong((s) => s.edit);
  const voicing = useView((s) => s.voicing[part.id]);
  const dragging = useRef("");
  const weight = (t: TermName) => part.playing.voicing?.weights?.[t] ?? 1;
  const changed = TERM_NAMES.filter((t) => part.playing.voicing?.weights?.[t] !== undefined);
  return (
    <>
      <table className="measures weights">
        <tbody>
          {TERM_NAMES.map((t) => (
            <tr key={t} className={weight(t) === 0 ? "zero" : ""}>
              <th scope="row">{TERMS[t]}</th>
              <td>
                <input
                  type="range"
                  min={0}
                  max={3}
                  step={0.25}
                  value={weight(t)}
                  aria-label={`Weight of ${TERMS[t]}`}
                  title={`× ${weight(t)}`}
                  onPointerUp={() => (dragging.current = "")}
                  onChange={(e) => {
                    // One drag is one step of undo.
                    edit(
                      { do: "setPlaying", part: part.id, voicing: { weights: { [t]: Number(e.target.value) } } },
                      { quiet: dragging.current === t },
                    );
                    dragging.current = t;
                  }}
                />
              </td>
              <td className="tabular">{oneDecimal(voicing?.terms[t] ?? 0)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <th scope="row">cost of the path</th>
            <td />
            <td>{oneDecimal(voicing?.cost ?? 0)}</td>
          </tr>
        </tfoot>
      </table>
      {changed.length > 0 && (
        <button type="button" onClick={() => edit({ do: "setPlaying", part: part.id, voicing: { weights: null } })}>
          Back to the usual weights
        </button>
      )}
    </>
  );
}
