import { useState } from "react";
import {
  BASS_STYLES,
  beatsText,
  describeReason,
  noteRoles,
  partByRole,
  positionText,
  reasonOf,
  typesetNames,
  type BassReport,
} from "../../core/src/index";
import { endPreview, useSound } from "../audio/sound";
import { partOfReal, type ScoreData } from "../score/data";
import { useSong } from "../store/song";
import { useView, type Offer } from "../store/view";
import { workers } from "../workers/client";
import { hearEdit } from "./hear";
import { FindingList } from "./FindingList";

const percent = (share: number | null): string => (share === null ? "–" : `${Math.round(share * 100)} %`);

/** Writes lines for the open section with a style and seed; the newest request wins. */
async function write(section: string, part: string, style: string, seed: number, glides: boolean | undefined): Promise<void> {
  const view = useView.getState();
  const ticket = `${section}:${style}:${seed}:${Date.now()}`;
  view.set({ busy: ticket, writeProblem: null });
  const result = await workers.writer.bass({ section, part, style, seed, ...(glides === undefined ? {} : { settings: { glides } }) });
  if (useView.getState().busy !== ticket) return;
  view.set({
    busy: null,
    ...(result.ok ? { lines: result.value, linesFor: `${section}:${part}` } : { lines: [], writeProblem: result.error }),
  });
}

/** The written lines as offers that can be heard in place and taken. */
export function useLineOffers(data: ScoreData): Offer[] {
  const { lines, linesFor } = useView();
  const part = partByRole(data.song, "bass");
  if (!part || linesFor !== `${data.section.id}:${part.id}`) return [];
  return lines.map((line, i) => ({
    id: `line:${i}:${line.seed}:${line.style}`,
    label: `line ${i + 1}`,
    edit: { do: "setNotes", section: data.section.id, part: part.id, notes: line.notes },
    from: 0,
    to: data.length,
  }));
}

export function BassPanel({ data }: { data: ScoreData }) {
  const view = useView();
  const { edit } = useSong();
  const playing = useSound((s) => s.playing);
  const part = partByRole(data.song, "bass");
  const offers = useLineOffers(data);
  const [seed, setSeed] = useState(1);
  if (!part) return <p>This song has no bass part.</p>;
  const style = BASS_STYLES.find((s) => s.id === part.settings.style) ?? BASS_STYLES[1]!;
  const glides = typeof part.settings.glides === "boolean" ? part.settings.glides : style.glides;
  const go = (next: number) => {
    setSeed(next);
    void write(data.section.id, part.id, style.id, next, glides);
  };
  const findings = view.findings.filter((f) => f.where.parts.includes(part.id) && f.waived === undefined);
  const lines = view.linesFor === `${data.section.id}:${part.id}` ? view.lines : [];
  return (
    <>
      <h2>Bass, {data.section.name.toLowerCase()}</h2>
      <div className="controls">
        <select
          aria-label="Style"
          value={style.id}
          onChange={(e) => {
            edit({ do: "setPart", part: part.id, settings: { style: e.target.value } });
            view.set({ lines: [] });
          }}
        >
          {BASS_STYLES.map((s) => (
            <option key={s.id} value={s.id}>
              {s.title}
            </option>
          ))}
        </select>
        <label>
          <input
            type="checkbox"
            checked={glides}
            onChange={(e) => edit({ do: "setPart", part: part.id, settings: { glides: e.target.checked } })}
          />{" "}
          glides
        </label>
        <button type="button" className="primary" onClick={() => go(lines.length ? seed + 1 : seed)} disabled={view.busy !== null}>
          {view.busy ? "Writing …" : lines.length ? "Other lines" : "Write lines"}
        </button>
      </div>
      <p className="small">{style.explanation} Pinned notes stay.</p>
      {view.writeProblem && (
        <p className="problem" role="alert">
          {view.writeProblem.message}. {view.writeProblem.hint}
        </p>
      )}
      {lines.length > 0 && (
        <ol className="choices lines" aria-label="Candidates">
          {lines.map((line, i) => {
            const offer = offers[i]!;
            const id = offer.id;
            const heard = view.preview?.id === id;
            return (
              <li key={id} className={heard ? "current" : ""}>
                <span className="line-title">
                  {line.title}
                  <span className="small">
                    {" "}
                    {line.notes.length} notes, {line.report.accentsMet}/{line.report.accents} accents, {line.report.pitchClasses} pitches,{" "}
                    {percent(line.report.silence)} silence
                  </span>
                </span>
                <button
                  type="button"
                  aria-pressed={heard && playing}
                  title={`Hear it in place (${i + 1})`}
                  onClick={() => hearEdit(offer.edit, offer.label, id, offer.from, offer.to)}
                >
                  {heard && playing ? "Stop" : "Hear"}
                </button>
                <button
                  type="button"
                  onClick={() => {
                    endPreview();
                    if (edit(offer.edit)) view.set({ lines: [] });
                  }}
                >
                  Take
                </button>
                {line.conflicts.length > 0 && (
                  <ul className="conflicts">
                    {line.conflicts.slice(0, 3).map((c, k) => (
                      <li key={k}>{typesetNames(c.message)}</li>
                    ))}
                    {line.conflicts.length > 3 && <li>and {line.conflicts.length - 3} more</li>}
                  </ul>
                )}
              </li>
            );
          })}
          <li className="hint small">Keys 1–{lines.length} hear a line, A goes back and forth between it and what is written.</li>
        </ol>
      )}
      <NoteReason data={data} part={part.id} />
      {view.report && view.report.notes > 0 ? (
        <Report report={view.report} data={data} part={part.id} targets={style.targets} />
      ) : (
        <p className="small">No bass notes yet. Write lines, or click into the bass lane.</p>
      )}
      {findings.length > 0 && (
        <>
          <hr />
          <FindingList data={data} findings={findings} all={view.findings} />
        </>
      )}
    </>
  );
}

/** Why the chosen bass note is there. */
function NoteReason({ data, part }: { data: ScoreData; part: string }) {
  const selected = useView((s) => s.selected);
  if (selected.part !== part || selected.ids.length !== 1) return null;
  const real = partOfReal(data, part);
  const note = real.notes.find((n) => n.id === selected.ids[0]);
  if (!note) return null;
  const spans = noteRoles(data.real, real).get(note) ?? [];
  const reason = reasonOf(
    note,
    spans,
    data.kicks.some((k) => k.start === note.start),
  );
  return (
    <p className="reason">
      <b>
        {typesetNames(note.pitch)}, {positionText(data.meter, note.start)}:
      </b>{" "}
      {reason ? describeReason(reason) : "no reason found: outside the chord and not led anywhere"}.
    </p>
  );
}

function Report({
  report,
  data,
  part,
  targets,
}: {
  report: BassReport;
  data: ScoreData;
  part: string;
  targets: { pitchClasses: number; longestOutside: number; chordTime: number };
}) {
  const set = useView((s) => s.set);
  const show = (ids: string[]) => set({ selected: { part, ids } });
  const longest = report.longestOutside ? beatsText(data.meter, report.longestOutside) : "none";
  const rows: [label: string, value: string, off: boolean, notes: string[], title: string][] = [
    [
      "Time on chord tones",
      percent(report.chordTime),
      (report.chordTime ?? 1) < targets.chordTime,
      report.links.outside,
      `This style aims at ${percent(targets.chordTime)} or more`,
    ],
    [
      "Longest other tone",
      longest,
      report.longestOutside > targets.longestOutside * data.meter.beats[0]!.duration,
      report.links.outside,
      "Pedals and anticipations by name are excepted; half a beat passes",
    ],
    [
      "Main kick accents met",
      `${report.accentsMet} of ${report.accents}`,
      report.accentsMet < report.accents,
      [],
      "A kick on a beat or clearly loud, or marked by you in Groove",
    ],
    ["Notes off the kick", String(report.offKick), false, report.links.offKick, "A few of them give the hook"],
    [
      "Pitches in a figure",
      String(report.pitchClasses),
      report.pitchClasses > targets.pitchClasses,
      [],
      `This style aims at ${targets.pitchClasses} or fewer in one or two bars`,
    ],
    ["Silence", percent(report.silence), false, [], "Share of the section in which the bass rests"],
    [
      "Approaches resolved",
      report.approaches ? `${report.approachesResolved} of ${report.approaches}` : "none",
      report.approachesResolved < report.approaches,
      report.links.unresolved,
      "Tones outside the chord that leave by step",
    ],
    [
      "Notes without a reason",
      String(report.withoutReason),
      report.withoutReason > 0,
      report.links.withoutReason,
      "Neither written for a reason, nor pinned, nor justified by their place",
    ],
    ...(report.lastBarVaried === null
      ? []
      : [
          ["Last bar differs", report.lastBarVaried ? "yes" : "no", !report.lastBarVaried, [], "The repetition ends differently"] as [
            string,
            string,
            boolean,
            string[],
            string,
          ],
        ]),
  ];
  return (
    <table className="measures report">
      <tbody>
        {rows.map(([label, value, off, notes, title]) => (
          <tr key={label} className={off ? "off" : ""} title={title}>
            <th scope="row">
              {notes.length ? (
                <button type="button" onClick={() => show(notes)} title={`${title}. Show the notes`}>
                  {label}
                </button>
              ) : (
                label
              )}
            </th>
            <td>
              {off && <span aria-label="outside the target">! </span>}
              {value}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
