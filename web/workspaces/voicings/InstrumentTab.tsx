import { useEffect, useState } from "react";
import { Instrument, type OwnInstrument, type Part, Song } from "../../../core/src/index";
import { nextInstrument, setInstrument, soundWhenVoiced } from "../../app/commands/voicings";
import type { SectionData } from "../../app/store/sectionData";
import { edit, songNow } from "../../app/store/song";
import { Select } from "../../kit/Select";
import { InstrumentFacts } from "./InstrumentFacts";
import { Button } from "../../kit/Button";

/** The instrument that is played where an own one is removed. */
const FALLBACK = "piano";
const OWN_SOURCE = "this song's own values";

/** A copy of an instrument under an id of its own. */
function ownCopy(song: Song, instrument: Instrument): OwnInstrument {
  const taken = new Set(Instrument.forRole(song).map((i) => i.id));
  let id = "own1";
  for (let n = 2; taken.has(id); n++) id = `own${n}`;
  return {
    ...structuredClone(instrument),
    id,
    title: `${instrument.title}, my own`,
    source: OWN_SOURCE,
  } as OwnInstrument;
}

/** Who plays a part; every value can be changed for this song. */
export function InstrumentTab({ data: { song }, part }: { data: SectionData; part: Part }) {
  const instrument = Instrument.of(part.instrument, song);
  const own = song.instruments?.some((i) => i.id === instrument.id) ?? false;
  const [asked, setChanging] = useState(false);
  useEffect(() => setChanging(false), [instrument.id]);
  const changing = asked || own;
  /** The instrument as it is stored now: what is drawn may be a moment behind. */
  const stored = (): Instrument => {
    const now = songNow();
    return Instrument.of(Song.part(now, part.id)?.instrument ?? part.instrument, now);
  };
  const put = (change: Partial<Instrument>): boolean => {
    soundWhenVoiced(part.id);
    const copy = structuredClone({ ...stored(), ...change, source: OWN_SOURCE }) as OwnInstrument;
    return edit({ do: "setInstrument", instrument: copy });
  };
  const addOwn = () => {
    const made = ownCopy(song, instrument);
    const edits = [
      { do: "setInstrument" as const, instrument: made },
      { do: "setPart" as const, part: part.id, instrument: made.id },
    ];
    edit({ do: "all", label: "instrument", edits });
  };
  return (
    <>
      <div className="controls">
        <Select
          label="Instrument"
          title="O, Shift O"
          value={instrument.id}
          choices={Instrument.forRole(song)
            .filter((i) => i.roles.includes(part.role))
            .map((i) => [i.id, i.title])}
          set={(id) => setInstrument(part.id, id)}
        />
        <span className="stepper">
          <Button aria-label="Instrument before" onClick={() => nextInstrument(-1)}>
            ‹
          </Button>
          <Button aria-label="Next instrument" onClick={() => nextInstrument(1)}>
            ›
          </Button>
        </span>
      </div>
      <InstrumentFacts instrument={instrument} stored={stored} put={changing ? put : null} />
      <p className="small">Source: {instrument.source}. Players differ: ask yours.</p>
      <div className="controls">
        {!changing && <Button onClick={() => setChanging(true)}>Change it for this song</Button>}
        <Button onClick={addOwn}>New instrument from this one</Button>
        {own && <RemoveOwn instrument={instrument} part={part} />}
      </div>
    </>
  );
}

/** The handbook's values again, or a part without the instrument that was made up. */
function RemoveOwn({ instrument, part }: { instrument: Instrument; part: Part }) {
  const known = Instrument.ALL.some((i) => i.id === instrument.id);
  const remove = { do: "removeInstrument" as const, instrument: instrument.id };
  const edits = known ? [remove] : [{ do: "setPart" as const, part: part.id, instrument: FALLBACK }, remove];
  return (
    <Button onClick={() => edit({ do: "all", label: "instrument", edits })}>
      {known ? "Back to the handbook's values" : "Remove this instrument"}
    </Button>
  );
}
