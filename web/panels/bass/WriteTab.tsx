import { useState } from "react";
import { Link } from "react-router";
import {
  BASS_STYLES,
  impliedChords,
  positionText,
  bassStyleOf,
  typeset,
  typesetNames,
  type Edit,
  type ImpliedRoot,
  type Part,
} from "../../../core/src/index";
import { useSound } from "../../audio/sound";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { MidiFile } from "../chords/MidiFile";
import { FindingList } from "../FindingList";
import { auditionEdit, acceptEdit } from "../hear";
import { useLineOffers, writeLines } from "./lines";
import { Settings } from "./Settings";
import { percent } from "../../ui/texts";
import { Refused } from "../../ui/Refused";

/** Lines written by style and settings, heard in place and taken. */
export function WriteTab({ data, part }: { data: ScoreData; part: Part }) {
  const view = useView();
  const edit = useSong((s) => s.edit);
  const [seed, setSeed] = useState(1);
  const [open, setOpen] = useState(false);
  const style = bassStyleOf(part, data.section);
  const lines = view.linesFor === `${data.section.id}:${part.id}` ? view.lines : [];
  const go = (next: number) => {
    setSeed(next);
    void writeLines(data.section.id, part.id, next);
  };
  const verdict = view.report?.part === part.id ? view.report : null;
  const own = view.findings.filter((f) => f.where.parts.includes(part.id) && f.waived === undefined);
  const bare = !data.section.chords.some((c) => c.symbol !== "N.C.");
  return (
    <>
      <div className="controls">
        <select
          aria-label="Style"
          value={style.id}
          onChange={(e) => {
            edit({ do: "setPlaying", part: part.id, section: data.section.id, bass: { style: e.target.value } });
            view.set({ lines: [], writeProblem: null });
          }}
        >
          {BASS_STYLES.map((s) => (
            <option key={s.id} value={s.id}>
              {s.title}
            </option>
          ))}
        </select>
        <button type="button" className="primary" onClick={() => go(lines.length ? seed + 1 : seed)} disabled={view.busy !== null || bare}>
          {view.busy ? "Writing …" : lines.length ? "Other lines" : "Write lines"}
        </button>
      </div>
      <p className="small">{style.explanation} Pinned notes stay.</p>
      {view.writeProblem && <Refused problem={view.writeProblem} />}
      {lines.length > 0 && <Candidates data={data} part={part} />}
      <button type="button" className="more" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? "▾" : "▸"} how it is played
      </button>
      {open && <Settings data={data} part={part} style={style} />}
      {bare && <BassFirst data={data} implied={verdict?.implied ?? []} notes={verdict?.report.notes ?? 0} />}
      {!bare && !lines.length && !verdict?.report.notes && (
        <p className="small">No bass notes yet. Write lines, click into the bass lane, or play one in.</p>
      )}
      <FromFile data={data} part={part.id} />
      {own.length > 0 && (
        <>
          <hr />
          <FindingList data={data} findings={own} all={view.findings} />
        </>
      )}
    </>
  );
}

function Candidates({ data, part }: { data: ScoreData; part: Part }) {
  const view = useView();
  const playing = useSound((s) => s.playing);
  const offers = useLineOffers(data);
  const take = (change: Edit) => {
    if (acceptEdit(change)) view.set({ lines: [] });
  };
  return (
    <ol className="choices lines" aria-label="Candidates">
      {view.lines.map((line, i) => {
        const offer = offers[i];
        if (!offer) return null;
        const heard = view.preview?.id === offer.id;
        const { report } = line;
        const slashed: Edit = {
          do: "all",
          label: "line with slash chords",
          edits: [
            offer.edit,
            ...line.slashes.map((s): Edit => ({ do: "setChord", section: data.section.id, chord: s.chord, symbol: s.symbol })),
          ],
        };
        return (
          <li key={offer.id} className={heard ? "current" : ""}>
            <span className="line-title">
              {typesetNames(line.title)}
              <span className="small">
                {" "}
                {line.notes.length} notes,{" "}
                {report.accentsMet === report.accents ? "all accents" : `${report.accentsMet} of ${report.accents} accents`},{" "}
                {report.pitchClasses} {report.pitchClasses === 1 ? "pitch" : "pitches"}, {percent(report.silence)} rest
              </span>
            </span>
            <button
              type="button"
              aria-pressed={heard && playing}
              title={`Hear it in place (${i + 1})`}
              onClick={() => auditionEdit(offer.edit, offer.label, offer.id, offer.from, offer.to)}
            >
              {heard && playing ? "Stop" : "Hear"}
            </button>
            <button type="button" onClick={() => take(offer.edit)}>
              Take
            </button>
            {line.slashes.length > 0 && (
              <span className="slashes small">
                <button type="button" onClick={() => take(slashed)}>
                  Take with its slash chords
                </button>{" "}
                {line.slashes
                  .slice(0, 4)
                  .map((s) => typeset(s.symbol))
                  .join(", ")}
                {line.slashes.length > 4 ? " …" : ""}
              </span>
            )}
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
      <li className="hint small">
        Keys 1–{view.lines.length} hear a line, A goes back and forth between it and what {part.name.split(",")[0]} has now, T takes it.
      </li>
    </ol>
  );
}

/** A line before any chord: what it implies, ready to be written or harmonized. */
function BassFirst({ data, implied, notes }: { data: ScoreData; implied: readonly ImpliedRoot[]; notes: number }) {
  const edit = useSong((s) => s.edit);
  const set = useView((s) => s.set);
  if (!notes)
    return (
      <p className="small">
        There are no chords here yet. Type them in Chords and lines can be written against them, or begin with the bass: click it into its
        lane, play it in, or take it from a file, and the roots it implies are shown here.
      </p>
    );
  return (
    <>
      <h3>Roots the line implies</h3>
      <table className="measures implied">
        <tbody>
          {implied.map((r) => (
            <tr key={r.start}>
              <th scope="row">{positionText(data.meter, r.start)}</th>
              <td className="root">{typeset(r.symbol)}</td>
              <td className="small">
                {r.reason}
                {r.others.length > 0 && `; or ${r.others.map(typeset).join(", ")}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="controls">
        <button
          type="button"
          className="primary"
          onClick={() => edit({ do: "setChords", section: data.section.id, from: 0, to: data.length, chords: impliedChords(implied) })}
        >
          Write them as chords
        </button>
        <Link className="button" to={`/songs/${data.song.id}/chords`} onClick={() => set({ chordTab: "harmonize" })}>
          Harmonize the line
        </Link>
      </p>
    </>
  );
}

/** A line from a MIDI file, behind a fold. */
function FromFile({ data, part }: { data: ScoreData; part: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="more" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? "▾" : "▸"} take a line from a MIDI file
      </button>
      {open && <MidiFile data={data} only="bass" bassPart={part} />}
    </>
  );
}
