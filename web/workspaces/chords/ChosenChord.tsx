import {
  Chord,
  type ChordAnalysis,
  type ChordEvent,
  type Color,
  Harmony,
  type HarmonyReport,
  Pitch,
  Reharm,
} from "../../../core/src/index";
import { chordsNow, rename } from "../../app/commands/chords";
import { useResults } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { chooseChord, useSelection } from "../../app/store/selection";
import { edit, useStored } from "../../app/store/song";
import { ChordName } from "../../kit/ChordName";
import { Select } from "../../kit/Select";
import { basses } from "./basses";
import { GroupTools } from "./GroupTools";
import { Readings } from "./Readings";
import { Toggle } from "../../kit/Toggle";
import { Button } from "../../kit/Button";

const COLOR_LABELS: Record<Color, string> = {
  seventh: "7",
  ninth: "9",
  thirteenth: "13",
  sixth: "6",
  sus4: "sus4",
  sus2: "sus2",
  third: "3",
};

/**
 * The chord in focus as it is written: what it is, why it works, and what can be changed in it at once. It stays while
 * another is heard in its place.
 */
export function ChosenChord({ data }: { data: SectionData }) {
  const id = useSelection((s) => s.chord);
  const chords = useSelection((s) => s.chords);
  const harmony = useResults((s) => s.harmony);
  const { section } = useStored(data.section.id);
  const event = section.chords.find((c) => c.id === id);
  if (!event)
    return (
      <section className="chosen-chord" aria-label="Chosen chord">
        <p className="small">Choose a chord above the lanes: what it is and what it can become stands here.</p>
      </section>
    );
  const many = chords.length > 1 && chords.includes(event.id);
  const found = harmony?.chords.find((c) => c.id === event.id && c.symbol === event.symbol);
  return (
    <section className="chosen-chord" aria-label="Chosen chord">
      <p className="chosen-line">
        <ChordName symbol={event.symbol} />
        {found && found.category !== "none" && <Meaning found={found} />}
        <Button className="quiet end" aria-label="Choose no chord" onClick={() => chooseChord(null)}>
          done
        </Button>
      </p>
      {many ? <GroupTools section={section} ids={chords} /> : <Changes data={data} event={event} />}
      <div className="whys">
        <Why data={data} event={event} found={found} harmony={harmony} />
      </div>
    </section>
  );
}

const Meaning = ({ found }: { found: ChordAnalysis }) => (
  <span className="roman-line">
    <b className="roman">{Pitch.typeset(found.pivot ? `${found.pivot} = ${found.roman}` : found.roman)}</b>{" "}
    {found.function}
    {found.category === "diatonic" ? "" : `, ${Harmony.categoryTitle(found.category)}`}
    {found.also.length > 0 && `, also ${found.also.slice(0, 2).map(Harmony.categoryTitle).join(", ")}`}
  </span>
);

/** Why the chord works, what of it lies outside the key, and how it may be read. */
function Why({
  data,
  event,
  found,
  harmony,
}: {
  data: SectionData;
  event: ChordEvent;
  found: ChordAnalysis | undefined;
  harmony: HarmonyReport | null;
}) {
  const sounding = data.sounding.get(event.id);
  const cadence = harmony?.cadences.find((c) => c.to === event.id);
  const region = harmony?.regions.find((r) => found?.elsewhere && r.key === found.key);
  return (
    <>
      {found && <p className="why">{found.explanation}</p>}
      {sounding && sounding !== event.symbol && (
        <p className="small">
          With the bass as written it sounds as <ChordName symbol={sounding} />.
        </p>
      )}
      {region && <p className="why">{Pitch.typesetAll(region.text)}.</p>}
      {found && found.outside.length > 0 && (
        <ul className="outside">
          {found.outside.map((o) => (
            <li key={o.note}>
              <b>{Pitch.typeset(o.note)}</b>, {o.what}
              {o.wants === o.note ? "" : `: wants to go to ${Pitch.typeset(o.wants)}${o.arrives ? ", and does" : ""}`}.
            </li>
          ))}
        </ul>
      )}
      {event.why && event.why.id !== "user" && <p className="small">Chosen because: {Reharm.describe(event.why)}.</p>}
      {cadence && <p className="small">{Pitch.typesetAll(cadence.text)}.</p>}
      {event.readings && <Readings data={data} event={event} readings={event.readings} />}
    </>
  );
}

/** Tones added and taken out, another bass, a pin. */
function Changes({ data, event }: { data: SectionData; event: ChordEvent }) {
  const section = data.section.id;
  const chord = Chord.of(event.symbol);
  if (!chord) return null;
  // A change starts from the chord as it is stored now.
  const change = (make: (chord: Chord) => Chord) => {
    const stored = Chord.of(chordsNow(section).find((c) => c.id === event.id)?.symbol ?? "");
    if (stored) rename(section, event.id, Chord.symbol(make(stored)));
  };
  return (
    <div className="colors" role="group" aria-label="Change the chord where it stands">
      {Chord.COLORS.map((color) => (
        <Toggle
          key={color}
          on={Chord.hasColor(chord, color)}
          title={
            `${color} ${Chord.hasColor(chord, color) ? "off" : "on"}: ` +
            `${Pitch.typeset(Chord.symbol(Chord.toggleColor(chord, color, data.key)))}`
          }
          press={() => change((c) => Chord.toggleColor(c, color, data.key))}
        >
          {COLOR_LABELS[color]}
        </Toggle>
      ))}
      <Select
        label="Bass"
        text="over"
        value={chord.bass ?? chord.root}
        choices={basses(chord, data.key).map((n) => [n, Pitch.typeset(n)])}
        set={(bass) => change((c) => Chord.withBass(c, bass))}
      />
      <Toggle
        on={event.pinned ?? false}
        title="A pinned chord keeps its name and its layouts when progressions are made (P)"
        press={() => edit({ do: "pinChords", section, chords: [event.id], pinned: !event.pinned })}
      >
        pin
      </Toggle>
    </div>
  );
}
