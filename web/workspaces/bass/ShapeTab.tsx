import Table from "react-bootstrap/Table";
import { useEffect, useState } from "react";
import { type BassVerdict, type Edit, type Gate, Meter, Pitch, Song, sure } from "../../../core/src/index";
import { acceptEdit, auditionEdit } from "../../app/commands/audition";
import { keepNotes } from "../../app/commands/bass";
import { useResults } from "../../app/store/results";
import { chooseNotes } from "../../app/store/selection";
import { edit, say, sectionNow, songNow } from "../../app/store/song";
import { HearTake } from "../../kit/HearTake";
import { percent } from "../../kit/texts";
import { workers } from "../../app/workers/sync";
import type { PartProps } from "../../kit/partProps";
import { NoteReason } from "../../kit/NoteReason";
import { Button } from "../../kit/Button";

/** Notes whose reason is told before all are asked for. */
const FIRST = 8;

/** A line cut back to its best parts or grown note by note, its lengths, and the states it came from. */
export function ShapeTab({ data, part }: PartProps) {
  const verdict = useResults((s) => (s.report?.part === part.id ? s.report : null));
  const section = data.section.id;
  const notes = data.section.notes[part.id] ?? [];
  const kept = data.song.takes.some((t) => t.sectionId === section && t.notes?.[part.id]);
  if (!notes.length && !kept)
    return <p className="small">No bass notes yet. Write lines first, or click into the bass lane.</p>;
  return (
    <>
      <Steps data={data} part={part} without={verdict?.notes.filter((n) => !n.reason).length ?? 0} />
      <NoteReason data={data} part={part.id} />
      <States data={data} part={part} />
      {notes.length > 0 && <Lengths data={data} part={part} />}
      <h3>Why each note is there</h3>
      <Whys data={data} part={part} list={verdict?.notes ?? []} />
    </>
  );
}

/** Takes the least justified note away, or adds the best justified one. */
function Steps({ data, part, without }: PartProps & { without: number }) {
  const [done, setDone] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const section = data.section.id;
  const count = data.section.notes[part.id]?.length ?? 0;
  const step = async (way: "thin" | "build") => {
    setBusy(true);
    const result = await workers.writer.shape({ section, part: part.id }, way);
    setBusy(false);
    if (!result.ok) return setDone(`${result.error.message}.`);
    const { pitch, tick, reason, edit: change } = result.value;
    // The state before is kept with the step, so that one undo takes both back.
    const label = way === "thin" ? "thin out" : "build up";
    if (!acceptEdit({ do: "all", label, edits: [keepNotes(section, part.id), change] })) return;
    const where = `${Pitch.typeset(pitch)}, ${Meter.position(data.meter, tick)}`;
    const why = reason ? Pitch.typesetAll(Song.reason(reason)) : "it had no reason";
    // Why a new note is there stands below, with the note chosen.
    setDone(way === "thin" ? `Removed ${where}: ${why}.` : `Added ${where}.`);
    const added =
      way === "build"
        ? sectionNow(section)?.notes[part.id]?.find((n) => n.start === tick && n.pitch === pitch)
        : undefined;
    chooseNotes(part.id, added ? [added.id] : []);
  };
  return (
    <>
      <div className="controls">
        <Button className="primary" disabled={busy || !count} onClick={() => void step("thin")}>
          Thin out
        </Button>
        <Button className="primary" disabled={busy} onClick={() => void step("build")}>
          Build up
        </Button>
        <span className="small">
          {count} {count === 1 ? "note" : "notes"}
          {without ? `, ${without} without a reason` : ""}
        </span>
      </div>
      <p className="small" role="status">
        {done ?? "Each press removes the least justified note, or adds the best justified one."}
      </p>
    </>
  );
}

/** States of the line that were kept: heard, and come back to. */
function States({ data, part }: PartProps) {
  const section = data.section.id;
  const takes = data.song.takes.filter((t) => t.sectionId === section && t.notes?.[part.id]);
  const keep = () => {
    const before = songNow().takes.length;
    if (edit(keepNotes(section, part.id)) && songNow().takes.length === before)
      say({ code: "take.same", message: "This state is kept already" });
  };
  return (
    <>
      <h3>Earlier states</h3>
      {takes.length ? (
        <ul className="plain-list takes">
          {[...takes].reverse().map((t) => {
            const back: Edit = { do: "setNotes", section, part: part.id, notes: sure(sure(t.notes)[part.id]) };
            const edits = () => [keepNotes(section, part.id), back];
            return (
              <li key={t.id}>
                <span>{t.name}</span>
                <HearTake
                  id={`take:${t.id}`}
                  name={t.name}
                  takeText="Back to it"
                  hear={() => auditionEdit(back, t.name, `take:${t.id}`, { from: 0, to: data.length })}
                  take={() => acceptEdit({ do: "all", label: "back to a state", edits: edits() })}
                />
                <Button
                  className="quiet"
                  aria-label={`Forget ${t.name}`}
                  title="Forget it"
                  onClick={() => edit({ do: "removeTake", take: t.id })}
                >
                  <i className="bi-trash3" />
                </Button>
              </li>
            );
          })}
        </ul>
      ) : (
        <p className="small">None yet: every step keeps the state before it.</p>
      )}
      <p className="controls">
        <Button disabled={!data.section.notes[part.id]?.length} onClick={keep}>
          Keep what is there now
        </Button>
      </p>
    </>
  );
}

/** Ways of shortening the line, with the silence each makes. */
function Lengths({ data, part }: PartProps) {
  const section = data.section.id;
  const [found, setFound] = useState<{ now: Gate["effect"]; gates: Gate[] } | null>(null);
  useEffect(() => {
    let gone = false;
    void workers.writer.gates({ section, part: part.id }).then((result) => {
      if (!gone) setFound(result.ok ? result.value : null);
    });
    return () => {
      gone = true;
    };
  }, [data.song, section, part.id]);
  if (!found) return null;
  // What is shown may be of the line before the last step: what is taken is worked out for the line as it is.
  const withEdit = async (id: string, act: (change: Edit) => unknown) => {
    const result = await workers.writer.gates({ section, part: part.id });
    const gate = result.ok ? result.value.gates.find((g) => g.id === id) : undefined;
    if (gate) act(gate.edit);
  };
  return (
    <>
      <h3>Lengths and silence</h3>
      <Table bsPrefix="measures" className="gates">
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
            <Effect of={found.now} />
            <td />
          </tr>
          {found.gates.map((g) => (
            <tr key={g.id} title={g.explanation} className={g.changed ? "" : "zero"}>
              <th scope="row">{g.title}</th>
              <Effect of={g.effect} />
              <td className="acts">
                <HearTake
                  id={`gate:${g.id}`}
                  name={g.title}
                  disabled={!g.changed}
                  hear={() =>
                    withEdit(g.id, (change) =>
                      auditionEdit(change, g.title.toLowerCase(), `gate:${g.id}`, { from: 0, to: data.length }),
                    )
                  }
                  take={() =>
                    withEdit(g.id, (change) =>
                      acceptEdit({ do: "all", label: g.title, edits: [keepNotes(section, part.id), change] }),
                    )
                  }
                />
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}

const Effect = ({ of }: { of: Gate["effect"] }) => (
  <>
    <td>{percent(of.silence)}</td>
    <td>
      {of.backbeatsFree} of {of.backbeats}
    </td>
  </>
);

/** Why each note is there, the least justified first. */
function Whys({ data, part, list }: PartProps & { list: BassVerdict["notes"] }) {
  const [all, setAll] = useState(false);
  const meant = (id: string) =>
    edit({ do: "changeNotes", section: data.section.id, part: part.id, notes: [{ id, reason: { id: "user" } }] });
  return (
    <>
      <ol className="plain-list whys">
        {(all ? list : list.slice(0, FIRST)).map((n) => (
          <li key={n.id} className={n.reason ? "" : "off"}>
            <Button onClick={() => chooseNotes(part.id, [n.id])}>
              {Pitch.typeset(n.pitch)}, {Meter.position(data.meter, n.tick)}
            </Button>{" "}
            <span className="small">
              {n.reason
                ? Pitch.typesetAll(Song.reason(n.reason))
                : "no reason: outside the chord, and not led anywhere"}
            </span>
            {!n.reason && (
              <>
                {" "}
                <Button title="Your own reason: it is no longer listed, and not removed" onClick={() => meant(n.id)}>
                  it is meant
                </Button>
              </>
            )}
          </li>
        ))}
      </ol>
      {list.length > FIRST && (
        <Button aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? "The least justified only" : `All ${list.length}`}
        </Button>
      )}
    </>
  );
}
