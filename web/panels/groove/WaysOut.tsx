import { useMemo } from "react";
import { accentMap, agreeOnAccents, bassRequest, positionText, tryWriteBass, weavePlan, type Edit } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { bassPartOf } from "../bass/lines";
import { hearEdit } from "../hear";

/** Two ways out where players rub: a bass that weaves between them, or one pattern that all agree on. */
export function WaysOut({ data }: { data: ScoreData }) {
  const edit = useSong((s) => s.edit);
  const bassPart = useView((s) => s.bassPart);
  const { song, section, meter, length } = data;
  const bass = bassPartOf(song, bassPart);
  const agreed = useMemo(() => agreeOnAccents(song, section.id), [song, section.id]);
  const plan = useMemo(() => {
    const found = bass && bassRequest(song, { section: section.id, part: bass.id, style: "weave" });
    return found?.ok ? weavePlan(found.value.ctx) : [];
  }, [song, section.id, bass]);
  const where = (tick: number) => positionText(meter, tick).replace("bar 1, ", "");
  const weave = (): Edit | null => {
    if (!bass) return null;
    const made = tryWriteBass(song, { section: section.id, part: bass.id, style: "weave" });
    if (!made.ok) {
      useSong.getState().say(made.error);
      return null;
    }
    return { do: "setNotes", section: section.id, part: bass.id, notes: made.value[0]!.notes };
  };
  const buttons = (id: string, label: string, make: () => Edit | null, keep: Edit[]) => (
    <span className="offer-buttons">
      <button
        type="button"
        onClick={() => {
          const change = make();
          if (change) hearEdit(change, label, id, 0, length);
        }}
      >
        Hear
      </button>
      <button
        type="button"
        onClick={() => {
          const change = make();
          if (change) edit({ do: "all", label, edits: [...keep, change] });
        }}
      >
        Take
      </button>
    </span>
  );
  if (!agreed.ok && agreed.error.code !== "accents.agreed") return null;
  return (
    <>
      <h3>{agreed.ok ? "Where they rub: two ways out" : "A bass that weaves"}</h3>
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
      {agreed.ok ? (
        <>
          <p className="offer-head">
            <b>All agree on one pattern</b>
            {agreed.value.players.some((p) => p.edit) && buttons("agree", "one accent pattern", () => agreed.value.edit, [])}
          </p>
          <ul className="plain-list notes-to-players">
            {agreed.value.players.map((p) => (
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
        <p className="small">No two players rub here: nothing has to be agreed on.</p>
      )}
    </>
  );
}

/** Steps that a player strikes in the bar, as a rhythm of the accent map. */
export const rhythmOfRow = (data: ScoreData, id: string): boolean[] => {
  const map = accentMap(data.song, data.section.id);
  const row = map.ok ? map.value.rows.find((r) => r.id === id) : undefined;
  return row ? row.strength.map((s) => s > 0.15) : [];
};
