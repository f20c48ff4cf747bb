import type { ComponentType } from "react";
import { Edit, type Finding, Song } from "../../core/src/index";
import { linePartOf, lineParts } from "../app/commands/lines";
import type { SectionData } from "../app/store/sectionData";
import { BassPanel } from "./bass/BassPanel";
import { CheckPanel } from "./check/CheckPanel";
import { ChordsPanel } from "./chords/ChordsPanel";
import { FormPanel } from "./form/FormPanel";
import { GroovePanel } from "./groove/GroovePanel";
import { HandOverPanel } from "./handover/HandOverPanel";
import { LogPanel } from "./log/LogPanel";
import { LinesPanel } from "./lines/LinesPanel";
import { VoicingsPanel } from "./voicings/VoicingsPanel";

/** What a workspace may know to say which lanes it is about. */
export interface FocusContext {
  song: Song;
  voicePart: string;
  bassPart: string;
  linePart: string;
  findings: readonly Finding[];
  /** The part of the chosen notes. */
  chosen: string;
}

/** A workbench of its own on the same song: one definition here, one panel in its folder. */
export interface Workspace {
  /** Its word in the address. */
  id: string;
  title: string;
  Panel: ComponentType<{ data: SectionData }>;
  /** Parts the work is about, the first the most: their lanes stand high. */
  focus(context: FocusContext): string[];
  /** Findings that are told beside its title. */
  counts?(finding: Finding, song: Song): boolean;
}

const known = (song: Song, ids: readonly (string | undefined)[]): string[] => [
  ...new Set(ids.flatMap((id) => song.parts.find((p) => p.id === id)?.id ?? [])),
];
const ofRole = (song: Song, role: Parameters<typeof Song.partByRole>[1]): string | undefined =>
  Song.partByRole(song, role)?.id;

/** In the order in which people work; one may enter anywhere. */
export const WORKSPACES: readonly Workspace[] = [
  {
    id: "groove",
    title: "Groove",
    Panel: GroovePanel,
    focus: ({ song, bassPart }) => known(song, [ofRole(song, "drums"), bassPart || ofRole(song, "bass")]),
  },
  {
    id: "chords",
    title: "Chords",
    Panel: ChordsPanel,
    focus: ({ song, voicePart }) =>
      known(song, [voicePart || Edit.laidOutParts(song)[0]?.id, ofRole(song, "melody") ?? ofRole(song, "vocal")]),
  },
  {
    id: "voicings",
    title: "Voicings",
    Panel: VoicingsPanel,
    focus: ({ song, voicePart }) => known(song, [voicePart || Edit.laidOutParts(song)[0]?.id]),
  },
  {
    id: "lines",
    title: "Lines",
    Panel: LinesPanel,
    focus: ({ song, linePart }) =>
      known(song, [
        linePartOf(song, linePart)?.id,
        ...lineParts(song)
          .map((p) => p.id)
          .slice(0, 2),
      ]),
  },
  {
    id: "bass",
    title: "Bass",
    Panel: BassPanel,
    focus: ({ song, bassPart }) => known(song, [bassPart || ofRole(song, "bass"), ofRole(song, "drums")]),
    counts: (f, song) => f.where.parts.some((id) => song.parts.find((p) => p.id === id)?.role === "bass"),
  },
  {
    id: "check",
    title: "Check",
    Panel: CheckPanel,
    focus: ({ song, chosen, findings }) =>
      known(song, [chosen, ...(findings.find((f) => f.waived === undefined)?.where.parts ?? [])]),
    counts: () => true,
  },
  { id: "form", title: "Form", Panel: FormPanel, focus: ({ song, chosen }) => known(song, [chosen]) },
  { id: "log", title: "Log", Panel: LogPanel, focus: ({ song, chosen }) => known(song, [chosen]) },
  { id: "handover", title: "Hand over", Panel: HandOverPanel, focus: () => [] },
];
