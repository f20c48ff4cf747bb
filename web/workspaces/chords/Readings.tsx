import { type ChordEvent, firstOf, Harmony, type Heard, Pitch } from "../../../core/src/index";
import { soundChord } from "../../app/commands/chords";
import { soundPitches, voicePartOf } from "../../app/commands/voicings";
import type { SectionData } from "../../app/store/sectionData";
import { edit, songNow } from "../../app/store/song";
import { Button } from "../../kit/Button";
import { ChordName } from "../../kit/ChordName";
import { Toggle } from "../../kit/Toggle";

interface Props {
  data: SectionData;
  event: ChordEvent;
  readings: string[];
}

/** How an unsure chord can be read, and what one can listen for to know. */
export function Readings({ data, event, readings }: Props) {
  const chord = { section: data.section.id, chord: event.id };
  const settle = (symbol: string) => {
    if (symbol === event.symbol) return;
    const edits = [
      { do: "setChord" as const, ...chord, symbol },
      { do: "setReadings" as const, ...chord, readings },
    ];
    if (edit({ do: "all", label: "reading", edits })) soundChord(symbol);
  };
  return (
    <>
      <p className="readings" role="group" aria-label="Readings">
        <span className="muted">Not sure yet. It can be read as </span>
        {readings.map((r) => (
          <Toggle key={r} on={r === event.symbol} press={() => settle(r)}>
            <ChordName symbol={r} />
          </Toggle>
        ))}
        <Button onClick={() => edit({ do: "setReadings", ...chord, readings: null })}>settled</Button>
      </p>
      <ByEar data={data} event={event} readings={readings} />
    </>
  );
}

/** The smallest listening test that divides the readings. */
function ByEar({ data, event, readings }: Props) {
  const part = voicePartOf(songNow());
  const layout = part && event.voicings?.[part.id];
  const test = Harmony.listen(readings, layout?.pinned ? layout.pitches : undefined);
  if (!test || !part) return null;
  const answer = ({ keeps, why }: Heard) => {
    const chord = { section: data.section.id, chord: event.id };
    const symbol = keeps.includes(event.symbol) ? event.symbol : firstOf(keeps);
    edit({
      do: "all",
      label: "what was heard",
      edits: [
        ...(symbol === event.symbol ? [] : [{ do: "setChord" as const, ...chord, symbol }]),
        { do: "setReadings", ...chord, readings: keeps.length > 1 ? keeps : null, why },
      ],
    });
  };
  return (
    <div className="by-ear" role="group" aria-label="By ear">
      <p className="small flush">By ear: {test.question}</p>
      {test.ways.map((way) => (
        <p key={way.label} className="small flush">
          <Button onClick={() => soundPitches(part.id, way.pitches)}>Hear it {way.label}</Button>{" "}
          <Button title={`It stays ${way.keeps.map(Pitch.typeset).join(" or ")}`} onClick={() => answer(way)}>
            this one
          </Button>
        </p>
      ))}
    </div>
  );
}
