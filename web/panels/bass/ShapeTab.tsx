import { useEffect, useState } from "react";
import { describeReason, positionText, typeset, typesetNames, type Edit, type Gate, type Part } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { workers } from "../../workers/client";
import { auditionEdit, acceptEdit } from "../hear";
import { songNow } from "./lines";
import { NoteReason } from "./NoteReason";
import { percent } from "../../ui/texts";

const FIRST = 8;
type Lengths = { now: Gate["effect"]; gates: Gate[] };

/** A line cut back to its best parts or grown note by note, its lengths, and the states it came from. */
export function ShapeTab({ data, part }: { data: ScoreData; part: Part }) {
  const { edit, say } = useSong();
  const { report: verdict, set } = useView();
  const [done, setDone] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [all, setAll] = useState(false);
  const section = data.section.id;
  const notes = data.section.notes[part.id] ?? [];
  const keep = (): Edit => ({
    do: "keepTake",
    section,
    part: part.id,
    name: stateName(songNow().sections.find((s) => s.id === section)?.notes[part.id]?.length ?? 0),
  });
  const step = async (way: "thin" | "build") => {
    setBusy(true);
    const result = await workers.writer.shape({ section, part: part.id }, way);
    setBusy(false);
    if (!result.ok) {
      setDone(`${result.error.message}.`);
      return;
    }
    const { value } = result;
    // The state before is kept with the step, so that one undo takes both back.
    if (!acceptEdit({ do: "all", label: way === "thin" ? "thin out" : "build up", edits: [keep(), value.edit] })) return;
    const where = `${typeset(value.pitch)}, ${positionText(data.meter, value.tick)}`;
    const why = value.reason ? describeReason(value.reason) : "it had no reason";
    // Why a new note is there stands below, with the note chosen.
    setDone(way === "thin" ? `Took away ${where}: ${why}.` : `Added ${where}.`);
    const added = songNow()
      .sections.find((s) => s.id === section)!
      .notes[part.id]!.find((n) => n.start === value.tick && n.pitch === value.pitch);
    set({ selected: { part: part.id, ids: way === "build" && added ? [added.id] : [] } });
  };
  const [lengths, setLengths] = useState<Lengths | null>(null);
  useEffect(() => {
    let gone = false;
    void workers.writer.gates({ section, part: part.id }).then((found) => {
      if (!gone) setLengths(found.ok ? found.value : null);
    });
    return () => {
      gone = true;
    };
  }, [data.song, section, part.id]);
  const takes = data.song.takes.filter((t) => t.sectionId === section && t.notes?.[part.id]);
  const list = verdict?.part === part.id ? verdict.notes : [];
  const without = list.filter((n) => !n.reason).length;
  if (!notes.length && !takes.length) return <p className="small">No bass notes yet. Write lines first, or click into the bass lane.</p>;
  return (
    <>
      <div className="controls">
        <button type="button" className="primary" disabled={busy || !notes.length} onClick={() => void step("thin")}>
          Thin out
        </button>
        <button type="button" className="primary" disabled={busy} onClick={() => void step("build")}>
          Build up
        </button>
        <span className="small">
          {notes.length} notes{without ? `, ${without} without a reason` : ""}
        </span>
      </div>
      <p className="small" role="status">
        {done ?? "Each press takes the least justified note away, or adds the best justified one."}
      </p>
      <NoteReason data={data} part={part.id} />
      <h3>Earlier states</h3>
      {takes.length ? (
        <ul className="plain-list takes">
          {[...takes].reverse().map((t) => {
            const back: Edit = { do: "setNotes", section, part: part.id, notes: t.notes![part.id]! };
            return (
              <li key={t.id}>
                <span>{t.name}</span>
                <button type="button" onClick={() => auditionEdit(back, t.name, `take:${t.id}`, 0, data.length)}>
                  Hear
                </button>
                <button type="button" onClick={() => acceptEdit({ do: "all", label: "back to a state", edits: [keep(), back] })}>
                  Back to it
                </button>
                <button
                  type="button"
                  aria-label={`Forget ${t.name}`}
                  title="Forget it"
                  onClick={() => edit({ do: "removeTake", take: t.id })}
                >
                  <i className="bi-trash3" />
                </button>
              </li>
            );
          })}
        </ul>
      ) : (
        <p className="small">None yet: every step keeps the state before it.</p>
      )}
      <p className="controls">
        <button
          type="button"
          disabled={!notes.length}
          onClick={() => {
            const before = songNow().takes.length;
            if (edit(keep()) && songNow().takes.length === before) say({ code: "take.same", message: "This state is kept already" });
          }}
        >
          Keep what is there now
        </button>
      </p>
      {lengths && notes.length > 0 && (
        <>
          <h3>Lengths and silence</h3>
          <table className="measures gates">
            <thead>
              <tr>
                <td />
                <th scope="col">silence</th>
                <th scope="col">backbeats free</th>
                <td />
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">now</th>
                <td>{percent(lengths.now.silence)}</td>
                <td>
                  {lengths.now.backbeatsFree} of {lengths.now.backbeats}
                </td>
                <td />
              </tr>
              {lengths.gates.map((g) => (
                <tr key={g.id} title={g.explanation} className={g.changed ? "" : "zero"}>
                  <th scope="row">{g.title}</th>
                  <td>{percent(g.effect.silence)}</td>
                  <td>
                    {g.effect.backbeatsFree} of {g.effect.backbeats}
                  </td>
                  <td className="acts">
                    <button
                      type="button"
                      aria-label={`Hear: ${g.title}`}
                      disabled={!g.changed}
                      onClick={() => auditionEdit(g.edit, g.title.toLowerCase(), `gate:${g.id}`, 0, data.length)}
                    >
                      Hear
                    </button>
                    <button
                      type="button"
                      aria-label={`Take: ${g.title}`}
                      disabled={!g.changed}
                      onClick={() => acceptEdit({ do: "all", label: g.title, edits: [keep(), g.edit] })}
                    >
                      Take
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      <h3>Why each note is there</h3>
      <ol className="plain-list whys">
        {(all ? list : list.slice(0, FIRST)).map((n) => (
          <li key={n.id} className={n.reason ? "" : "off"}>
            <button type="button" onClick={() => set({ selected: { part: part.id, ids: [n.id] } })}>
              {typeset(n.pitch)}, {positionText(data.meter, n.tick)}
            </button>{" "}
            <span className="small">
              {n.reason ? typesetNames(describeReason(n.reason)) : "no reason: outside the chord, and not led anywhere"}
            </span>
            {!n.reason && (
              <>
                {" "}
                <button
                  type="button"
                  title="Your own reason: it is no longer listed, and not removed"
                  onClick={() => edit({ do: "changeNotes", section, part: part.id, notes: [{ id: n.id, reason: { id: "user" } }] })}
                >
                  it is meant
                </button>
              </>
            )}
          </li>
        ))}
      </ol>
      {list.length > FIRST && (
        <button type="button" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? "The least justified only" : `All ${list.length}`}
        </button>
      )}
    </>
  );
}

/** How a kept state is called: by how many notes it has, and when it was kept. */
function stateName(notes: number): string {
  const now = new Date();
  return `${notes} notes, ${now.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", second: "2-digit" })}`;
}
