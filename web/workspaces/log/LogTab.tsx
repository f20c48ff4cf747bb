import FormControl from "react-bootstrap/FormControl";
import { useState } from "react";
import { Pitch, Song, Text } from "../../../core/src/index";
import { auditionEdit } from "../../app/commands/audition";
import { writeLog } from "../../app/commands/log";
import { bringEdit } from "../../app/commands/takes";
import { usePlayback } from "../../app/store/playback";
import type { SectionData } from "../../app/store/sectionData";
import { showPass, showSection, useSelection } from "../../app/store/selection";
import { edit, useOfSong } from "../../app/store/song";
import { Button } from "../../kit/Button";
import { Check } from "../../kit/Check";
import { HearButton } from "../../kit/HearTake";
import { InPlace } from "../../kit/InPlace";
import { Select } from "../../kit/Select";
import { timeText } from "./times";

type Entry = Song["log"][number];

/** Lines that are shown at once; the rest on demand. */
const SHOWN = 60;

/** Where a line of the log is about, in words; nothing where it is about the song. */
function placeText(song: Song, { where }: Entry): string {
  if (!where) return "";
  const section = where.sectionId === undefined ? undefined : Song.section(song, where.sectionId);
  const pass = song.form.findIndex((p) => p.id === where.passId);
  const at = section && where.tick !== undefined ? Math.floor(where.tick / Song.meterOf(song, section).bar) + 1 : null;
  const bars = where.bars && where.bars > 1 && at !== null ? `bars ${at}–${at + where.bars - 1}` : `bar ${at ?? ""}`;
  const parts = where.parts?.flatMap((id) => Song.part(song, id)?.name.split(",")[0] ?? []) ?? [];
  return [
    ...(section ? [section.name + (pass >= 0 ? `, pass ${pass + 1}` : "")] : []),
    ...(at === null ? [] : [bars]),
    ...parts,
  ].join(", ");
}

/** Brings the place of a line into view. */
function goTo(song: Song, { where }: Entry): void {
  if (where?.sectionId === undefined) return;
  if (where.passId !== undefined && song.form.some((p) => p.id === where.passId))
    showPass(where.sectionId, where.passId);
  else showSection(where.sectionId);
  if (where.tick !== undefined) usePlayback.setState({ from: where.tick });
}

interface Filter {
  text: string;
  part: string;
  section: string;
  own: boolean;
}

const meant = ({ text, part, section, own }: Filter, song: Song, entry: Entry): boolean =>
  (!text || `${entry.what} ${entry.why ?? ""} ${placeText(song, entry)}`.toLowerCase().includes(text.toLowerCase())) &&
  (!part || (entry.where?.parts?.includes(part) ?? false)) &&
  (!section || entry.where?.sectionId === section) &&
  (!own || !entry.byItself);

/** The log of the song, the latest line first: searched, by part and section, with the way to its place and take. */
export function LogTab({ data }: { data: SectionData }) {
  const song = useOfSong((s) => s);
  const [filter, setFilter] = useState<Filter>({ text: "", part: "", section: "", own: false });
  const [all, setAll] = useState(false);
  const set = (change: Partial<Filter>) => setFilter({ ...filter, ...change });
  const found = [...song.log].reverse().filter((e) => meant(filter, song, e));
  const shown = all ? found : found.slice(0, SHOWN);
  return (
    <>
      <NewLine />
      {song.log.length > 0 && (
        <div className="controls log-filter">
          <FormControl
            bsPrefix="field"
            type="search"
            aria-label="Search the log"
            placeholder="Search"
            value={filter.text}
            onChange={(e) => set({ text: e.target.value })}
            onKeyDown={(e) => e.stopPropagation()}
          />
          <Select
            label="Part"
            value={filter.part}
            choices={[["", "any part"], ...song.parts.map((p) => [p.id, p.name] as const)]}
            set={(part) => set({ part })}
          />
          <Select
            label="Section"
            value={filter.section}
            choices={[["", "any section"], ...song.sections.map((s) => [s.id, s.name] as const)]}
            set={(section) => set({ section })}
          />
          <Check on={filter.own} set={(own) => set({ own })}>
            only what people wrote
          </Check>
        </div>
      )}
      {!song.log.length && (
        <p className="small">
          Nothing is written yet. <kbd>G</kbd> writes a line from anywhere. Taking a line or other chords, moving a key
          and leaving a finding write theirs by themselves.
        </p>
      )}
      {song.log.length > 0 && !found.length && <p className="small">No line says that.</p>}
      <ol className="log-lines" aria-label="Log">
        {shown.map((e) => (
          <Line key={e.id} song={song} data={data} entry={e} />
        ))}
      </ol>
      {found.length > shown.length && (
        <Button onClick={() => setAll(true)}>{Text.counted(found.length - shown.length, "older line")}</Button>
      )}
    </>
  );
}

/** A line that is typed here. */
function NewLine() {
  const [text, setText] = useState("");
  const write = () => {
    if (writeLog(text)) setText("");
  };
  return (
    <div className="controls">
      <FormControl
        bsPrefix="field"
        aria-label="A line for the log"
        className="log-new"
        maxLength={400}
        value={text}
        placeholder="What was tried, decided or agreed – and why"
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === "Enter") write();
        }}
      />
      <Button className="primary" disabled={!text.trim()} onClick={write}>
        Write
      </Button>
    </div>
  );
}

function Line({ song, data, entry }: { song: Song; data: SectionData; entry: Entry }) {
  const place = placeText(song, entry);
  const take = song.takes.find((t) => t.id === entry.takeId);
  const here = useSelection((s) => s.section);
  const [changing, setChanging] = useState(false);
  return (
    <li className={entry.byItself ? "by-itself" : ""}>
      <span className="log-what">
        {changing ? (
          <InPlace
            label="What it says"
            className="wide"
            value={entry.what}
            commit={(what) => {
              setChanging(false);
              return edit({ do: "setEntry", entry: entry.id, what });
            }}
          />
        ) : (
          Pitch.typesetAll(entry.what)
        )}
      </span>
      <span className="small log-why">{entry.why ? `because: ${entry.why}` : ""}</span>
      <span className="small log-foot">
        <time dateTime={entry.at}>{timeText(entry.at)}</time>
        {place && (
          <Button className="link" title="Show the place" onClick={() => goTo(song, entry)}>
            {place}
          </Button>
        )}
        {take && take.sectionId === here && (
          <HearButton
            id={`log:${entry.id}`}
            hear={(id) => auditionEdit(bringEdit(take), take.name, id, { from: 0, to: data.length })}
          >
            {`Hear ${take.name}`}
          </HearButton>
        )}
        {!entry.byItself && (
          <Button aria-pressed={changing} onClick={() => setChanging(!changing)}>
            change
          </Button>
        )}
        <Button
          className="quiet"
          aria-label={`Delete the line: ${entry.what}`}
          title="Delete the line"
          onClick={() => edit({ do: "removeEntry", entry: entry.id })}
        >
          <i className="bi-trash3" />
        </Button>
      </span>
    </li>
  );
}
