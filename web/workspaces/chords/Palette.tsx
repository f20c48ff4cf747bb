import { useState } from "react";
import { Chord, firstOf, Key, nth, Pitch } from "../../../core/src/index";
import { afterText, put, soundChord, type Where } from "../../app/commands/chords";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { ChordName } from "../../kit/ChordName";
import { Switches } from "../../kit/Switches";
import { Button } from "../../kit/Button";

const DEGREES = [0, 1, 2, 3, 4, 5, 6];

/** Chords near a key, in rows: its own, the dominants of its degrees, and what is borrowed or further off. */
export function paletteOf(key: Key): [title: string, symbols: string[]][] {
  const at = (semitones: number, quality: string) =>
    Key.root(Pitch.mod(firstOf(key.pcs) + semitones, 12), key) + quality;
  const dominants = DEGREES.slice(1)
    .filter((d) => !Chord.diatonic(key, d, 3).endsWith("dim"))
    .map((d) => Key.root(Pitch.mod(nth(key.pcs, d) + 7, 12), key) + "7");
  return [
    [`Triads of ${Pitch.typeset(Key.name(key))}`, DEGREES.map((d) => Chord.diatonic(key, d, 3))],
    ["Sevenths", DEGREES.map((d) => Chord.diatonic(key, d, 4))],
    ["Ninths", DEGREES.map((d) => Chord.diatonic(key, d, 5))],
    ["Dominants of its degrees", dominants],
    Key.isMinorish(key)
      ? [
          "Raised seventh and major",
          [at(7, ""), at(7, "7"), at(7, "7(b9)"), at(11, "dim7"), at(5, ""), at(2, "m7"), at(0, "")],
        ]
      : [
          "From the parallel minor",
          [at(5, "m"), at(5, "m6"), at(8, ""), at(3, ""), at(10, ""), at(10, "9"), at(2, "m7b5")],
        ],
    ["Further", [at(1, "maj7"), at(1, "7"), at(6, "m7b5"), at(6, "dim7"), at(2, "7"), at(4, ""), at(7, "7sus4")]],
  ];
}

/** The key's chords and their near neighbors, to pick from. */
export function Palette({ data }: { data: SectionData }) {
  const focus = useSelection((s) => s.chord);
  const [chosen, choose] = useState<Where | "listen">("after");
  const { key } = data;
  const event = data.section.chords.find((c) => c.id === focus);
  const target = chosen === "instead" && !event ? "after" : chosen;
  const roman = (symbol: string) => {
    const chord = Chord.of(symbol);
    return chord ? Pitch.typeset(Chord.numeral(chord, key)) : "";
  };
  return (
    <>
      <div className="controls">
        <Switches
          label="Where a chord goes"
          value={target}
          set={choose}
          choices={[
            ...(event ? [["instead", `in place of ${Pitch.typeset(event.symbol)}`] as const] : []),
            ["after", afterText(data, focus)],
            ["listen", "only listen"],
          ]}
        />
      </div>
      {paletteOf(key).map(([title, symbols]) => (
        <div key={title} role="group" aria-label={title}>
          <h4 className="palette-title">{title}</h4>
          <div className="palette">
            {[...new Set(symbols)].map((symbol) => (
              <Button
                key={symbol}
                title={`${Pitch.typeset(symbol)}, ${roman(symbol)}`}
                onClick={() => (target === "listen" ? soundChord(symbol) : put(data, symbol, target))}
              >
                <ChordName symbol={symbol} />
                <small>{roman(symbol)}</small>
              </Button>
            ))}
          </div>
        </div>
      ))}
    </>
  );
}
