import { useState } from "react";
import { diatonicChord, isMinorish, keyName, mod, nameInKey, parseChord, romanOf, typeset } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { ChordName } from "../../ui/ChordName";
import { afterText, put, sound, type Where } from "./put";

/** The key's chords and their near neighbors, to pick from. */
export function Palette({ data }: { data: ScoreData }) {
  const focus = useView((s) => s.chord);
  const song = useSong((s) => s.song)!;
  const [where, setWhere] = useState<Where | "listen">("after");
  const { key } = data;
  const event = data.section.chords.find((c) => c.id === focus);
  const target = where === "instead" && !event ? "after" : where;
  const seven = [0, 1, 2, 3, 4, 5, 6];
  const at = (semitones: number, quality: string) => nameInKey(mod(key.pcs[0]! + semitones, 12), key) + quality;
  const minor = isMinorish(key);
  const rows: [string, string[]][] = [
    ["Triads", seven.map((s) => diatonicChord(key, s, 3))],
    ["Sevenths", seven.map((s) => diatonicChord(key, s, 4))],
    ["Ninths", seven.map((s) => diatonicChord(key, s, 5))],
    [
      "Dominants of its degrees",
      seven
        .slice(1)
        .filter((s) => !diatonicChord(key, s, 3).endsWith("dim"))
        .map((s) => nameInKey(mod(key.pcs[s]! + 7, 12), key) + "7"),
    ],
    minor
      ? ["Raised seventh and major", [at(7, ""), at(7, "7"), at(7, "7(b9)"), at(11, "dim7"), at(5, ""), at(2, "m7"), at(0, "")]]
      : ["From the parallel minor", [at(5, "m"), at(5, "m6"), at(8, ""), at(3, ""), at(10, ""), at(10, "9"), at(2, "m7b5")]],
    ["Further", [at(1, "maj7"), at(1, "7"), at(6, "m7b5"), at(6, "dim7"), at(2, "7"), at(4, ""), at(7, "7sus4")]],
  ];
  const roman = (symbol: string) => {
    const chord = parseChord(symbol);
    return chord.ok ? typeset(romanOf(chord.value, key)) : "";
  };
  return (
    <>
      <div className="controls" role="group" aria-label="Where a chord goes">
        {event && (
          <button type="button" aria-pressed={target === "instead"} onClick={() => setWhere("instead")}>
            in place of {typeset(event.symbol)}
          </button>
        )}
        <button type="button" aria-pressed={target === "after"} onClick={() => setWhere("after")}>
          {afterText(data)}
        </button>
        <button type="button" aria-pressed={target === "listen"} onClick={() => setWhere("listen")}>
          only listen
        </button>
      </div>
      {rows.map(([title, symbols]) => (
        <div key={title} role="group" aria-label={title}>
          <h4 className="palette-title">
            {title}
            {title === "Triads" ? ` of ${typeset(keyName(key))}` : ""}
          </h4>
          <div className="palette">
            {[...new Set(symbols)].map((symbol) => (
              <button
                key={symbol}
                type="button"
                title={`${symbol}, ${roman(symbol)}`}
                onClick={() => (target === "listen" ? sound(song, symbol) : put(data, symbol, target))}
              >
                <ChordName symbol={symbol} />
                <small>{roman(symbol)}</small>
              </button>
            ))}
          </div>
        </div>
      ))}
    </>
  );
}
