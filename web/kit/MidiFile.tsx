import Table from "react-bootstrap/Table";
import { useState } from "react";
import {
  Format,
  Chord,
  type Drum,
  Drums,
  firstOf,
  Midi,
  type MidiChoices,
  type MidiContents,
  Pitch,
  type Problem,
  Song,
  sure,
} from "../../core/src/index";
import type { SectionData } from "../app/store/sectionData";
import { edit, useStored } from "../app/store/song";
import { Check } from "./Check";
import { guessUses, midiChoices, usesOf, writtenText, type MidiSettings, type Only, type Use } from "./midiChoices";
import { NumberBox } from "./NumberBox";
import { OpenFile } from "./OpenFile";
import { Refused } from "./Refused";
import { Select } from "./Select";
import { Button } from "./Button";

interface Opened {
  name: string;
  contents: MidiContents;
}

/** Takes chords, tune, bass and drums from a Standard MIDI File; what will be written is seen before it is. */
export function MidiFile({ data, only, part }: { data: SectionData; only?: Only; part?: string }) {
  const [file, setFile] = useState<Opened | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [done, setDone] = useState<string | null>(null);
  const open = async (chosen: File) => {
    setDone(null);
    const result = Midi.read(new Uint8Array(await chosen.arrayBuffer()));
    setProblem(result.ok ? null : result.error);
    setFile(result.ok ? { name: chosen.name, contents: result.value } : null);
  };
  return (
    <>
      <OpenFile
        accept={Format.pickerText(Format.ALL.filter((f) => f.id === "midi"))}
        open={(chosen) => void open(chosen)}
      >
        Open a MIDI file …
      </OpenFile>
      {problem && <Refused problem={problem} />}
      {done && (
        <p className="small" role="status">
          {done}
        </p>
      )}
      {file && (
        <Import
          key={file.name + file.contents.length}
          file={file}
          data={data}
          only={only}
          part={part}
          done={(text) => {
            setDone(text);
            setFile(null);
          }}
        />
      )}
    </>
  );
}

interface ImportProps {
  file: Opened;
  data: SectionData;
  only: Only | undefined;
  part: string | undefined;
  done(text: string): void;
}

/** What of a file is taken, and where it will stand. */
function Import({ file: { name, contents }, data, only, part, done }: ImportProps) {
  const { song, section } = useStored(data.section.id);
  const [uses, setUses] = useState(() => guessUses(contents, only));
  const [settings, setSettings] = useState<MidiSettings>(() => ({
    bars: [1, Math.min(Song.LIMITS.bars, Math.max(1, Math.ceil(contents.length / data.meter.bar)))],
    unit: "bar",
    keep: { tempo: !only, meter: !only, key: !only },
    drumMap: {},
    addDrums: false,
  }));
  const set = (change: Partial<MidiSettings>) => setSettings({ ...settings, ...change });
  const choices = midiChoices(contents, uses, settings, {
    file: name,
    parts: only === "melody" ? { melodyPart: part } : { bassPart: part },
  });
  const plan = Midi.plan(song, section.id, contents, choices);
  const drums = contents.tracks.find((t) => t.id === choices.drums);
  const [from, to] = settings.bars;
  return (
    <>
      <p className="small">
        {name}: {Math.ceil(contents.length / data.meter.bar)} bars, {firstOf(contents.tempos).bpm} bpm,{" "}
        {firstOf(contents.meters).text}
      </p>
      <Tracks contents={contents} only={only} uses={uses} set={setUses} />
      <Bars settings={settings} set={set} units={!only} />
      <div className="controls">
        <Keep contents={contents} settings={settings} set={set} ownKey={section.key !== undefined} />
      </div>
      {drums && (
        <DrumMap
          notes={Midi.drumNotes(song, section.id, drums, {
            from: (from - 1) * data.meter.bar,
            to: to * data.meter.bar,
          })}
          settings={settings}
          set={set}
        />
      )}
      {!plan.ok ? (
        <Refused problem={plan.error} />
      ) : (
        <>
          {plan.value.chords.length > 0 && (
            <>
              <p className="line-preview">
                {Pitch.typeset(Chord.writeLine(plan.value.chords, data.meter, to - from + 1))}
              </p>
              <p className="small">{doubtText(plan.value.unsure, plan.value.chords.length, settings.unit)}</p>
            </>
          )}
          {[...contents.mended, ...plan.value.reported].map((r) => (
            <p key={r} className="small">
              {r}
            </p>
          ))}
          <Button
            className="primary"
            onClick={() =>
              edit(plan.value.edit) && done(writtenText(choices, plan.value.chords.length, only, section.name))
            }
          >
            Write into {section.name}
          </Button>
        </>
      )}
    </>
  );
}

const doubtText = (unsure: number, all: number, unit: MidiChoices["unit"]): string =>
  unsure
    ? `${unsure} of ${all} chords are doubtful; their readings are kept with ` +
      `them.${unit === "bar" ? " A bar may hold two chords: try half bars." : ""}`
    : "All chords are read with certainty.";

function Tracks({
  contents,
  only,
  uses,
  set,
}: {
  contents: MidiContents;
  only: Only | undefined;
  uses: Record<string, Use>;
  set(uses: Record<string, Use>): void;
}) {
  return (
    <Table bsPrefix="measures" className="midi-tracks">
      <tbody>
        {contents.tracks.map((t) => (
          <tr key={t.id}>
            <th scope="row">
              {t.name}{" "}
              <span className="small">
                ch {t.channel}, {t.notes.length} notes
              </span>
            </th>
            <td>
              <Select
                label={`Use ${t.name} as`}
                value={sure(uses[t.id])}
                choices={usesOf(t.drums, only).map((u) => [u, u])}
                set={(u) => set({ ...uses, [t.id]: u })}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

interface SettingsProps {
  settings: MidiSettings;
  set(change: Partial<MidiSettings>): void;
}

function Bars({ settings: { bars, unit }, set, units }: SettingsProps & { units: boolean }) {
  return (
    <div className="controls">
      <label>
        <span className="muted">bars</span>
        <NumberBox label="First bar" min={1} value={bars[0]} set={(n) => set({ bars: [n, bars[1]] })} />
        <span>–</span>
        <NumberBox label="Last bar" min={1} value={bars[1]} set={(n) => set({ bars: [bars[0], n] })} />
      </label>
      {units && (
        <Select
          label="A chord each"
          text="a chord each"
          value={unit}
          choices={[
            ["bar", "bar"],
            ["half bar", "half bar"],
            ["beat", "beat"],
          ]}
          set={(u) => set({ unit: u })}
        />
      )}
    </div>
  );
}

function Keep({
  contents,
  settings: { keep },
  set,
  ownKey,
}: SettingsProps & { contents: MidiContents; ownKey: boolean }) {
  const box = (what: keyof MidiSettings["keep"], words: string) => (
    <Check key={what} on={keep[what]} set={(on) => set({ keep: { ...keep, [what]: on } })}>
      {words}
    </Check>
  );
  const [key] = contents.keys;
  return (
    <>
      {box("tempo", "its tempo")}
      {box("meter", "its meter")}
      {key && !ownKey && box("key", `its key, ${Pitch.typeset(key.key)}`)}
    </>
  );
}

/** Which lane each drum note goes to: as General MIDI has it, or as is chosen here. */
function DrumMap({
  notes,
  settings: { drumMap, addDrums },
  set,
}: SettingsProps & { notes: { note: number; count: number; lane: Drum | null }[] }) {
  return (
    <>
      <h3>Drum notes</h3>
      <Table bsPrefix="measures" className="drum-map">
        <tbody>
          {notes.map(({ note, count, lane }) => (
            <tr key={note}>
              <th scope="row">
                note {note} <span className="small">{count} ×</span>
              </th>
              <td>
                <Select<Drum | "">
                  label={`Lane of note ${note}`}
                  value={(note in drumMap ? drumMap[note] : lane) ?? ""}
                  choices={[["", "left out"], ...Drums.ALL.map((d) => [d, Drums.KINDS[d].title] as const)]}
                  set={(d) => set({ drumMap: { ...drumMap, [note]: d || null } })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <Check on={addDrums} set={(on) => set({ addDrums: on })}>
        join what the lanes have instead of replacing it
      </Check>
    </>
  );
}
