import Table from "react-bootstrap/Table";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import {
  Bass,
  type BassLine,
  Chord,
  type Edit,
  Form,
  type ImpliedRoot,
  Meter,
  Pitch,
  Text,
  type WayOn,
} from "../../../core/src/index";
import { acceptLine, useLineOffers, useWritten, writeLines } from "../../app/commands/written";
import { openTab } from "../../app/store/preferences";
import { useResults, type Offer } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { edit } from "../../app/store/song";
import { Fold } from "../../kit/Fold";
import { MidiFile } from "../../kit/MidiFile";
import { LineBench } from "../../kit/LineBench";
import { percent } from "../../kit/texts";
import type { PartProps } from "../../kit/partProps";
import { OwnFindings } from "../../kit/OwnFindings";
import { Settings } from "./Settings";
import { Button } from "../../kit/Button";

/** Lines written by style and settings, heard in place and taken. */
export function WriteTab({ data, part }: PartProps) {
  const section = data.section.id;
  const lines = useWritten("bass", section, part.id);
  const offers = useLineOffers("bass", part.id, section, data.length);
  const verdict = useResults((s) => (s.report?.part === part.id ? s.report : null));
  const [seed, setSeed] = useState(1);
  const style = Bass.styleOf(part, data.section);
  const bare = !data.section.chords.some((c) => Chord.of(c.symbol));
  const run = () => {
    const next = lines.length ? seed + 1 : seed;
    setSeed(next);
    void writeLines(section, part.id, next);
  };
  return (
    <LineBench
      data={data}
      part={part}
      way="bass"
      style={{ label: "Style", field: "style", now: style, all: Bass.STYLES }}
      write={{ words: lines.length ? "More lines" : "Write lines", possible: !bare, run }}
      lines={lines}
      offers={offers}
      text={lineText}
      each={(line, offer) => line.slashes.length > 0 && <Slashed section={section} line={line} offer={offer} />}
      before={<LeadsTo data={data} />}
      settings={["how it is played", <Settings key="bass" data={data} part={part} style={style} />]}
    >
      {bare && <BassFirst data={data} implied={verdict?.implied ?? []} notes={verdict?.report.notes ?? 0} />}
      {!bare && !lines.length && !verdict?.report.notes && (
        <p className="small">No bass notes yet. Write lines, click into the bass lane, or play one in.</p>
      )}
      <Fold title="take a line from a MIDI file">
        <MidiFile data={data} only="bass" part={part.id} />
      </Fold>
      <OwnFindings data={data} part={part.id} />
    </LineBench>
  );
}

/** Where the line leads, as the form goes on. */
function LeadsTo({ data: { song, section } }: { data: SectionData }) {
  const here = useSelection((s) => s.here);
  const ways = useMemo(() => Form.waysOn(song, section.id), [song, section.id]);
  const [main, ...others] = ways;
  if (!main || (main.again && !others.length)) return null;
  const goal = (w: WayOn) =>
    `${w.again ? "its own beginning" : w.into}${w.symbol ? ` (${Pitch.typeset(w.symbol)})` : ""}`;
  const counts = others.map(
    (w) => `${goal(w)}, ${w.passes.length === 1 ? "once" : Text.counted(w.passes.length, "time")}`,
  );
  return (
    <p className="small">
      The line leads on to {goal(main)}.
      {others.length > 0 &&
        !here &&
        ` It also goes on to ${counts.join("; ")}: there the last bar is written for that pass alone where it ` +
          "has to be."}
    </p>
  );
}

/** Slash chords of a line that are told. */
const SLASHES = 4;

function lineText({ notes, report }: BassLine): string {
  const accents =
    report.accentsMet === report.accents ? "all accents" : `${report.accentsMet} of ${report.accents} accents`;
  const pitches = `${report.pitchClasses} different ${report.pitchClasses === 1 ? "note" : "notes"}`;
  return `${Text.counted(notes.length, "note")}, ${accents}, ${pitches}, ${percent(report.silence)} rest`;
}

/** A line taken together with the chords as they are written over it. */
function Slashed({ section, line, offer }: { section: string; line: BassLine; offer: Offer }) {
  const slashed: Edit = {
    do: "all",
    label: "line with slash chords",
    edits: [
      offer.edit,
      ...line.slashes.map((s): Edit => ({ do: "setChord", section, chord: s.chord, symbol: s.symbol })),
    ],
  };
  return (
    <span className="slashes small">
      <Button onClick={() => acceptLine(slashed)}>Take with its slash chords</Button>{" "}
      {line.slashes
        .slice(0, SLASHES)
        .map((s) => Pitch.typeset(s.symbol))
        .join(", ")}
      {line.slashes.length > SLASHES ? " …" : ""}
    </span>
  );
}

/** A line before any chord: what it implies, ready to be written or harmonized. */
function BassFirst({ data, implied, notes }: { data: SectionData; implied: readonly ImpliedRoot[]; notes: number }) {
  if (!notes)
    return (
      <p className="small">
        There are no chords here yet. Type them in Chords and lines can be written against them, or begin with the bass:
        click it into its lane, play it in, or take it from a file, and the roots it implies are shown here.
      </p>
    );
  return (
    <>
      <h3>Roots the line implies</h3>
      <Table bsPrefix="measures" className="implied">
        <tbody>
          {implied.map((r) => (
            <tr key={r.start}>
              <th scope="row">{Meter.position(data.meter, r.start)}</th>
              <td className="root">{Pitch.typeset(r.symbol)}</td>
              <td className="small">
                {r.reason}
                {r.others.length > 0 && `; or ${r.others.map(Pitch.typeset).join(", ")}`}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="controls">
        <Button
          className="primary"
          onClick={() =>
            edit({
              do: "setChords",
              section: data.section.id,
              from: 0,
              to: data.length,
              chords: Bass.implied(implied),
            })
          }
        >
          Write them as chords
        </Button>
        <Link className="button" to={`/songs/${data.song.id}/chords`} onClick={() => openTab("chords", "harmonize")}>
          Harmonize the line
        </Link>
      </p>
    </>
  );
}
