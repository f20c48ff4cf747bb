import { useState } from "react";
import {
  Chord,
  type Part,
  Pitch,
  Singer,
  Song,
  Text,
  Vocal,
  type VocalLines,
  type VocalRequest,
  type VocalSchool,
  type VocalSettings,
} from "../../../core/src/index";
import { addPart } from "../../app/commands/parts";
import { mendVoices, useVoiceOffers, useWritten, writeVoices } from "../../app/commands/written";
import { clearLines } from "../../app/store/results";
import { useSelection } from "../../app/store/selection";
import { Fold } from "../../kit/Fold";
import { LineBench } from "../../kit/LineBench";
import { LineSettings, type Control } from "../../kit/LineSettings";
import type { PartProps } from "../../kit/partProps";
import { Select, type Choice } from "../../kit/Select";
import { percent } from "../../kit/texts";
import { Between } from "./Between";
import { EchoOf } from "./Echo";
import { Button } from "../../kit/Button";

/** Voices beside a tune: written by school, compared with each other, echoed. */
export function VoicesTab({ data, part }: PartProps) {
  const first = Vocal.tunes(data.song, "")[0];
  return (
    <>
      {part.role === "vocal" && part !== first ? (
        <Writer data={data} part={part} />
      ) : (
        <Choose data={data} part={part} />
      )}
      <Between data={data} />
      <EchoOf data={data} part={part} />
    </>
  );
}

const vocals = (data: PartProps["data"], but: readonly string[]): Part[] =>
  data.song.parts.filter((p) => p.role === "vocal" && Song.isWritten(p) && !but.includes(p.id));

/** The tune stays as it is: voices are written for parts of their own. */
function Choose({ data, part }: PartProps) {
  const others = vocals(data, [part.id]);
  const choose = (id: string) => useSelection.setState({ linePart: id });
  return (
    <>
      <p>
        {Singer.isSung(data.song, part) ? `${part.name} sings the tune. ` : ""}What goes with a tune is written for a
        voice of its own.
      </p>
      <p className="controls">
        {others.map((p) => (
          <Button key={p.id} onClick={() => choose(p.id)}>
            Write for {p.name}
          </Button>
        ))}
        <Button
          className={others.length ? "" : "primary"}
          onClick={() => {
            const id = addPart("vocal");
            if (id) choose(id);
          }}
        >
          Add a voice
        </Button>
      </p>
    </>
  );
}

function Writer({ data, part }: PartProps) {
  const section = data.section.id;
  const lines = useWritten("vocal", section, part.id);
  const offers = useVoiceOffers(section, part.id, data.length);
  const school = Vocal.schoolOf(part, data.section);
  const now = Vocal.settings(part, data.section, school.usual);
  const [leadId, setLead] = useState<string | undefined>(undefined);
  const leads = Vocal.tunes(data.song, part.id);
  const lead = leads.find((p) => p.id === leadId) ?? leads[0];
  const count = Vocal.written(school, now.voices);
  const beside = vocals(data, [part.id, lead?.id ?? ""]);
  const [chosen, setChosen] = useState<readonly string[] | null>(null);
  const others = (chosen ?? beside.map((p) => p.id))
    .filter((id) => beside.some((p) => p.id === id))
    .slice(0, count - 1);
  const request: VocalRequest = { section, part: part.id, others, ...(lead ? { lead: lead.id } : {}) };
  const bare = school.needs.includes("chords") && !data.section.chords.some((c) => Chord.of(c.symbol));
  const silent = school.needs.includes("tune") && !(lead && data.section.notes[lead.id]?.length);
  return (
    <LineBench
      data={data}
      part={part}
      way="vocal"
      style={{ label: "School", field: "school", now: school, all: Vocal.SCHOOLS }}
      against={{ label: "The tune", words: "beside", parts: leads, now: lead, set: setLead }}
      write={{
        words: count > 1 ? "Write the voices" : "Write the voice",
        possible: !bare && !silent,
        run: () => void writeVoices(request),
      }}
      lines={lines}
      offers={offers}
      text={(line) => wayText(line, school)}
      each={(line) => (
        <Rough line={line} mend={(spot, pitch) => void mendVoices(request, lines.indexOf(line), spot, pitch)} />
      )}
      before={
        <>
          <Settings data={data} part={part} school={school} now={now} />
          {count > 1 && <Further part={part} count={count} beside={beside} others={others} set={setChosen} />}
          <Missing bare={bare} silent={silent} lead={lead} />
        </>
      }
    />
  );
}

/** What must be there before voices can be written. */
function Missing({ bare, silent, lead }: { bare: boolean; silent: boolean; lead: Part | undefined }) {
  if (bare)
    return (
      <p className="small">There are no chords here yet: type them in Chords, and voices can be written from them.</p>
    );
  if (!silent) return null;
  return (
    <p className="small">
      {lead ? `${lead.name} has no note here yet` : "There is no tune yet"}: enter it first, and voices can join it.
    </p>
  );
}

/** What sets a way apart, in figures. */
function wayText({ report, parts }: VocalLines, { targets }: VocalSchool): string {
  return [
    parts.length > 1 && Text.counted(parts.length, "voice"),
    report.chordTime !== null && `${percent(report.chordTime)} on chord tones`,
    report.rubs ? `${report.rubs} rub` : "no rub",
    report.outOfKey > 0 && `${report.outOfKey} out of the key`,
    targets.strict && (report.parallels ? Text.counted(report.parallels, "parallel") : "no parallels"),
    report.outOfRange > 0 && `${report.outOfRange} out of range`,
  ]
    .filter(Boolean)
    .join(", ");
}

/** Rough spots that are told at once. */
const SPOTS = 12;

/** Where written voices are rough, each with the tones that would mend it. */
function Rough({ line, mend }: { line: VocalLines; mend(spot: VocalLines["spots"][number], pitch: string): void }) {
  if (!line.spots.length) return null;
  return (
    <div className="whole">
      <Fold title={Text.counted(line.spots.length, "rough spot")}>
        <ul className="rough">
          {line.spots.slice(0, SPOTS).map((spot, i) => (
            <li key={i}>
              <span>{Pitch.typesetAll(spot.message)}</span>
              {spot.fixes.map((pitch) => (
                <Button key={pitch} title="Put this note there" onClick={() => mend(spot, pitch)}>
                  {Pitch.typesetAll(pitch)}
                </Button>
              ))}
            </li>
          ))}
          {line.spots.length > SPOTS && <li>and {line.spots.length - SPOTS} more</li>}
        </ul>
      </Fold>
    </div>
  );
}

const NEW = "new";

/** Which parts sing the further voices; what none is named for becomes a new part when it is taken. */
function Further({
  part,
  count,
  beside,
  others,
  set,
}: {
  part: Part;
  count: number;
  beside: readonly Part[];
  others: readonly string[];
  set(ids: readonly string[]): void;
}) {
  return (
    <p className="controls">
      <span className="muted">{part.name.split(",")[0]} and</span>
      {Array.from({ length: count - 1 }, (_, i) => (
        <Select
          key={i}
          label={`Voice ${i + 2}`}
          value={others[i] ?? NEW}
          choices={[
            ...beside
              .filter((p) => p.id === others[i] || !others.includes(p.id))
              .map((p): Choice<string> => [p.id, p.name]),
            [NEW, "a new voice"],
          ]}
          set={(id) => {
            clearLines();
            set(id === NEW ? others.filter((_, k) => k !== i) : [...others.slice(0, i), id, ...others.slice(i + 1)]);
          }}
        />
      ))}
    </p>
  );
}

const CONTROLS: readonly Control<keyof VocalSettings>[] = [
  {
    kind: "choice",
    name: "voices",
    words: "singing in all",
    choices: [
      [2, "two"],
      [3, "three"],
      [4, "four"],
    ],
  },
  {
    kind: "choice",
    name: "side",
    words: "lies",
    choices: [
      ["below", "below the tune"],
      ["above", "above the tune"],
    ],
  },
  {
    kind: "choice",
    name: "interval",
    words: "goes in",
    choices: [
      ["third", "thirds"],
      ["sixth", "sixths"],
    ],
  },
  {
    kind: "choice",
    name: "semitones",
    words: "semitones away",
    choices: [12, 9, 8, 7, 5, 4, 3, -3, -4, -5, -7, -8, -9, -12].map((n) => [n, n > 0 ? `${n} up` : `${-n} down`]),
  },
  {
    kind: "choice",
    name: "manner",
    words: "notes are",
    choices: [
      ["held", "held"],
      ["swelling", "swelling"],
    ],
  },
  {
    kind: "choice",
    name: "syllable",
    words: "on",
    choices: [
      ["oo", "oo"],
      ["ah", "ah"],
      ["mm", "mm"],
    ],
  },
  {
    kind: "choice",
    name: "tone",
    words: "holds",
    choices: [
      ["tonic", "the tonic"],
      ["fifth", "the fifth"],
      ["common", "what most chords have"],
    ],
  },
  {
    kind: "choice",
    name: "lead",
    words: "the tune lies",
    choices: [
      ["top", "on top"],
      ["second", "under one voice"],
    ],
  },
];

/** What the school makes use of. Every change is one of this section. */
function Settings({ data, part, school, now }: PartProps & { school: VocalSchool; now: VocalSettings }) {
  if (!school.uses.length) return null;
  return (
    <LineSettings
      data={data}
      part={part}
      way="vocal"
      controls={CONTROLS.filter((c) => school.uses.includes(c.name))}
      now={now}
      chosen={{ school: school.id }}
    />
  );
}
