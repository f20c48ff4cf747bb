import { useState } from "react";
import { Link } from "react-router";
import {
  counted,
  BASS_STYLES,
  bassStyleOf,
  chordOf,
  impliedChords,
  positionText,
  typeset,
  typesetNames,
  type BassLine,
  type Edit,
  type ImpliedRoot,
} from "../../../core/src/index";
import { acceptLine, linesId, useLineOffers, writeLines } from "../../commands/bass";
import { usePlayback } from "../../store/playback";
import { openTab } from "../../store/preferences";
import { clearLines, useOffers, useResults, type Offer } from "../../store/results";
import type { SectionData } from "../../store/sectionData";
import { edit } from "../../store/song";
import { Fold } from "../../ui/Fold";
import { MidiFile } from "../../ui/MidiFile";
import { OfferButtons } from "../../ui/OfferButtons";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { percent } from "../../ui/texts";
import type { BassProps } from "./props";
import { OwnFindings } from "./OwnFindings";
import { Settings } from "./Settings";

/** Lines written by style and settings, heard in place and taken. */
export function WriteTab({ data, part }: BassProps) {
  const section = data.section.id;
  const busy = useResults((s) => s.busy !== null);
  const problem = useResults((s) => s.writeProblem);
  const mine = useResults((s) => s.linesFor === linesId(section, part.id) && s.lines.length > 0);
  const verdict = useResults((s) => (s.report?.part === part.id ? s.report : null));
  const [seed, setSeed] = useState(1);
  const style = bassStyleOf(part, data.section);
  const bare = !data.section.chords.some((c) => chordOf(c.symbol));
  const write = () => {
    const next = mine ? seed + 1 : seed;
    setSeed(next);
    void writeLines(section, part.id, next);
  };
  return (
    <>
      <div className="controls">
        <Select
          label="Style"
          value={style.id}
          choices={BASS_STYLES.map((s) => [s.id, s.title])}
          set={(id) => {
            edit({ do: "setPlaying", part: part.id, section, bass: { style: id } });
            clearLines();
          }}
        />
        <button type="button" className="primary" onClick={write} disabled={busy || bare}>
          {busy ? "Writing …" : mine ? "More lines" : "Write lines"}
        </button>
      </div>
      <p className="small">{style.explanation} Pinned notes stay.</p>
      {problem && <Refused problem={problem} />}
      <Candidates data={data} part={part} />
      <Fold title="how it is played">
        <Settings data={data} part={part} style={style} />
      </Fold>
      {bare && <BassFirst data={data} implied={verdict?.implied ?? []} notes={verdict?.report.notes ?? 0} />}
      {!bare && !mine && !verdict?.report.notes && (
        <p className="small">No bass notes yet. Write lines, click into the bass lane, or play one in.</p>
      )}
      <Fold title="take a line from a MIDI file">
        <MidiFile data={data} only="bass" bassPart={part.id} />
      </Fold>
      <OwnFindings data={data} part={part.id} />
    </>
  );
}

function Candidates({ data, part }: BassProps) {
  const lines = useResults((s) => s.lines);
  const offers = useLineOffers(part.id, data.section.id, data.length);
  useOffers(offers);
  if (!offers.length) return null;
  return (
    <ol className="choices lines" aria-label="Candidates">
      {offers.map((offer, i) => (
        <Candidate key={offer.id} data={data} line={lines[i]!} offer={offer} />
      ))}
      <li className="hint small">
        Keys 1–{offers.length} hear a line, A goes back and forth between it and what {part.name.split(",")[0]} has now, T takes it.
      </li>
    </ol>
  );
}

/** Conflicts and slash chords of a line that are told. */
const CONFLICTS = 3;
const SLASHES = 4;

function lineText({ notes, report }: BassLine): string {
  const accents = report.accentsMet === report.accents ? "all accents" : `${report.accentsMet} of ${report.accents} accents`;
  const pitches = `${report.pitchClasses} different ${report.pitchClasses === 1 ? "note" : "notes"}`;
  return `${counted(notes.length, "note")}, ${accents}, ${pitches}, ${percent(report.silence)} rest`;
}

function Candidate({ data, line, offer }: { data: SectionData; line: BassLine; offer: Offer }) {
  const heard = usePlayback((s) => s.preview?.id === offer.id);
  const slashed: Edit = {
    do: "all",
    label: "line with slash chords",
    edits: [offer.edit, ...line.slashes.map((s): Edit => ({ do: "setChord", section: data.section.id, chord: s.chord, symbol: s.symbol }))],
  };
  return (
    <li className={heard ? "current" : ""}>
      <span className="line-title">
        {typesetNames(line.title)}
        <span className="small"> {lineText(line)}</span>
      </span>
      <OfferButtons offer={offer} bar={data.meter.bar} end={data.length} />
      {line.slashes.length > 0 && (
        <span className="slashes small">
          <button type="button" onClick={() => acceptLine(slashed)}>
            Take with its slash chords
          </button>{" "}
          {line.slashes
            .slice(0, SLASHES)
            .map((s) => typeset(s.symbol))
            .join(", ")}
          {line.slashes.length > SLASHES ? " …" : ""}
        </span>
      )}
      {line.conflicts.length > 0 && (
        <ul className="conflicts">
          {line.conflicts.slice(0, CONFLICTS).map((c, k) => (
            <li key={k}>{typesetNames(c.message)}</li>
          ))}
          {line.conflicts.length > CONFLICTS && <li>and {line.conflicts.length - CONFLICTS} more</li>}
        </ul>
      )}
    </li>
  );
}

/** A line before any chord: what it implies, ready to be written or harmonized. */
function BassFirst({ data, implied, notes }: { data: SectionData; implied: readonly ImpliedRoot[]; notes: number }) {
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
        <Link className="button" to={`/songs/${data.song.id}/chords`} onClick={() => openTab("chords", "harmonize")}>
          Harmonize the line
        </Link>
      </p>
    </>
  );
}
