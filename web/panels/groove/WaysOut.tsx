import { positionText, type Edit, type Part } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import type { AccentView } from "../../workers/music.worker";
import { workers } from "../../workers/client";
import { auditionEdit, acceptEdit } from "../hear";

/** Two ways out where accents just miss each other: a bass that weaves between them, or one pattern that all agree on. */
export function WaysOut({ data, view, bass }: { data: ScoreData; view: AccentView; bass: Part | undefined }) {
  const { section, meter, length } = data;
  const { agreed, plan } = view;
  const where = (tick: number) => positionText(meter, tick).replace("bar 1, ", "");
  const weave = async (): Promise<Edit | null> => {
    if (!bass) return null;
    const made = await workers.writer.bass({ section: section.id, part: bass.id, style: "weave" });
    if (!made.ok) {
      useSong.getState().say(made.error);
      return null;
    }
    return {
      do: "all",
      label: "weave",
      edits: [
        { do: "setPlaying", part: bass.id, section: section.id, bass: { style: "weave" } },
        { do: "setNotes", section: section.id, part: bass.id, notes: made.value[0]!.notes },
      ],
    };
  };
  const buttons = (id: string, label: string, make: () => Promise<Edit | null> | Edit | null, keep: Edit[]) => (
    <span className="offer-buttons">
      <button
        type="button"
        onClick={() => void Promise.resolve(make()).then((change) => change && auditionEdit(change, label, id, 0, length))}
      >
        Hear
      </button>
      <button
        type="button"
        onClick={() => void Promise.resolve(make()).then((change) => change && acceptEdit({ do: "all", label, edits: [...keep, change] }))}
      >
        Take
      </button>
    </span>
  );
  return (
    <>
      <h3>{agreed ? "Where accents just miss each other: two ways out" : "A bass that weaves"}</h3>
      {bass && plan.length > 0 && (
        <>
          <p className="offer-head">
            <b>The bass weaves</b>
            {buttons("weave", "the bass weaves", weave, [{ do: "keepTake", section: section.id, part: bass.id, name: "before weaving" }])}
          </p>
          <ul className="plain-list small weave">
            {plan.map((p) => (
              <li key={p.step} className={p.take ? "" : "left"}>
                <b>{where(p.tick)}</b> {p.take ? "take" : "leave"}: {p.why}
              </li>
            ))}
          </ul>
        </>
      )}
      {agreed ? (
        <>
          <p className="offer-head">
            <b>All agree on one pattern</b>
            {agreed.players.some((p) => p.edit) && buttons("agree", "one accent pattern", () => agreed.edit, [])}
          </p>
          <ul className="plain-list notes-to-players">
            {agreed.players.map((p) => (
              <li key={p.id}>
                “{p.note}”{" "}
                {p.edit ? (
                  buttons(`agree:${p.id}`, `${p.name} changes`, () => p.edit, [])
                ) : (
                  <span className="small">To be said: this part is made by a rule.</span>
                )}
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p className="small">All accents fall together or well apart: nothing has to be agreed on.</p>
      )}
    </>
  );
}
