import type { SectionData } from "../../app/store/sectionData";
import { MidiFile } from "../../kit/MidiFile";
import { PanelHead } from "../../kit/PanelHead";
import { Tabs, useTab, type Tab } from "../../kit/Tabs";
import { ChosenChord } from "./ChosenChord";
import { FretEntry } from "./FretEntry";
import { Harmonize } from "./Harmonize";
import { NumeralLine } from "./NumeralLine";
import { Palette } from "./Palette";
import { PlayedEntry } from "./PlayedEntry";
import { Reharmonize } from "./Reharmonize";
import "./style.scss";
import { SymbolLine } from "./SymbolLine";
import { Understand } from "./Understand";

interface Props {
  data: SectionData;
}

const WAYS_IN: readonly Tab<Props>[] = [
  { id: "symbols", title: "symbols", Tab: SymbolLine },
  { id: "numerals", title: "numerals", Tab: NumeralLine },
  { id: "keys", title: "keys", Tab: PlayedEntry },
  { id: "frets", title: "frets", Tab: FretEntry },
  { id: "palette", title: "palette", Tab: Palette },
  { id: "file", title: "file", Tab: MidiFile },
];

/** Chords written: the ways in. */
function Write({ data }: Props) {
  const way = useTab("ways in", WAYS_IN);
  return (
    <>
      <Tabs row="ways in" label="Ways in" tabs={WAYS_IN} />
      <way.Tab data={data} />
    </>
  );
}

const TABS: readonly Tab<Props>[] = [
  { id: "write", title: "Write", Tab: Write },
  { id: "understand", title: "Tones", Tab: Understand },
  { id: "reharmonize", title: "Reharmonize", Tab: Reharmonize },
  { id: "harmonize", title: "For a line", Tab: Harmonize },
];

/** The harmony bench: the chosen chord above, and below it what one is doing with chords. */
export function ChordsPanel({ data }: Props) {
  const open = useTab("chords", TABS);
  return (
    <>
      <PanelHead title={`Chords, ${data.section.name.toLowerCase()}`}>
        <ChosenChord data={data} />
        <Tabs row="chords" label="Chords" tabs={TABS} />
      </PanelHead>
      <open.Tab data={data} />
    </>
  );
}
