import type { ScoreData } from "../score/data";
import { CHORD_TABS, useView, WAYS_IN, type ChordTab, type WayIn } from "../store/view";
import { ChosenChord } from "./chords/ChosenChord";
import { FretEntry } from "./chords/FretEntry";
import { Harmonize } from "./chords/Harmonize";
import { MidiFile } from "./chords/MidiFile";
import { NumeralLine } from "./chords/NumeralLine";
import { Palette } from "./chords/Palette";
import { PlayedEntry } from "./chords/PlayedEntry";
import { Reharmonize } from "./chords/Reharmonize";
import { SymbolLine } from "./chords/SymbolLine";
import { Understand } from "./chords/Understand";

const TAB_TITLES: Record<ChordTab, string> = { write: "Write", understand: "Tones", reharmonize: "Reharmonize", harmonize: "For a line" };

const WAYS: Record<WayIn, (props: { data: ScoreData }) => React.ReactNode> = {
  symbols: SymbolLine,
  numerals: NumeralLine,
  keys: PlayedEntry,
  frets: FretEntry,
  palette: Palette,
  file: MidiFile,
};

/** The harmony bench: the chosen chord above, and below it what one is doing with chords. */
export function ChordsPanel({ data }: { data: ScoreData }) {
  const { chordTab, wayIn, set } = useView();
  const Way = WAYS[wayIn];
  return (
    <>
      <h2 className="visually-hidden">Chords, {data.section.name.toLowerCase()}</h2>
      <ChosenChord data={data} />
      <div className="tabs" role="tablist" aria-label="Chords">
        {CHORD_TABS.map((t) => (
          <button key={t} type="button" role="tab" aria-selected={t === chordTab} onClick={() => set({ chordTab: t })}>
            {TAB_TITLES[t]}
          </button>
        ))}
      </div>
      {chordTab === "write" && (
        <>
          <div className="ways" role="group" aria-label="Ways in">
            {WAYS_IN.map((w) => (
              <button key={w} type="button" aria-pressed={w === wayIn} onClick={() => set({ wayIn: w })}>
                {w}
              </button>
            ))}
          </div>
          <Way data={data} />
        </>
      )}
      {chordTab === "understand" && <Understand data={data} />}
      {chordTab === "reharmonize" && <Reharmonize data={data} />}
      {chordTab === "harmonize" && <Harmonize data={data} />}
    </>
  );
}
