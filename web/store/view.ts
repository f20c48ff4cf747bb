import { create } from "zustand";
import type {
  BassLine,
  BassVerdict,
  Edit,
  Finding,
  HarmonyReport,
  Problem,
  SectionPath,
  SectionVoicing,
  Song,
  Ticks,
  Verdict,
} from "../../core/src/index";

export const WORKSPACES = ["groove", "chords", "voicings", "bass", "check", "handover"] as const;
export type Workspace = (typeof WORKSPACES)[number];
export type Snap = "chord" | "scale" | "semitone";

/** A change that can be heard in place and taken. */
export interface Offer {
  id: string;
  label: string;
  edit: Edit;
  from: Ticks;
  to: Ticks;
  /** The edit is complete: no voicings or bass have to follow it. */
  whole?: boolean;
}

export const CHORD_TABS = ["write", "understand", "reharmonize", "harmonize"] as const;
export type ChordTab = (typeof CHORD_TABS)[number];
export const WAYS_IN = ["symbols", "numerals", "keys", "frets", "palette", "file"] as const;
export const VOICE_TABS = ["path", "chord", "parts", "instrument"] as const;
export type VoiceTab = (typeof VOICE_TABS)[number];
export const GROOVE_TABS = ["patterns", "lanes", "accents", "play in", "file"] as const;
export type GrooveTab = (typeof GROOVE_TABS)[number];
export const BASS_TABS = ["write", "report", "shape", "layers", "play in"] as const;
export type BassTab = (typeof BASS_TABS)[number];
export type WayIn = (typeof WAYS_IN)[number];

interface ViewState {
  section: string;
  /** Pixels a quarter note. */
  zoom: number;
  snap: Snap;
  /** Time grid in ticks. */
  grid: Ticks;
  names: boolean;
  folded: string[];
  solo: string[];
  /** Selected notes of one part. */
  selected: { part: string; ids: string[] };
  /** The chord in focus, and all chosen ones (the one in focus among them). */
  chord: string | null;
  chords: string[];
  chordTab: ChordTab;
  wayIn: WayIn;
  /** Keys of the computer play notes. */
  playIn: boolean;
  loop: { on: boolean; from: Ticks; to: Ticks } | null;
  wholeSong: boolean;
  click: boolean;
  countIn: boolean;
  help: boolean;

  findings: Finding[];
  harmony: HarmonyReport | null;
  verdict: Verdict | null;
  /** Offers of the Chords workspace, in the order of their number keys. */
  offers: Offer[];
  report: BassVerdict | null;
  /** What the path chose, by part. */
  voicing: Record<string, SectionVoicing>;
  /** The part whose voicings are worked on; the first one where it is empty. */
  voicePart: string;
  voiceTab: VoiceTab;
  /** Ways through the section that were asked for, and the song version they belong to. */
  voicingPaths: SectionPath[];
  /** Show the parts as notes on staves. */
  notation: boolean;
  /** Notes on staves as the player of a transposing instrument reads them. */
  written: boolean;
  /** Tempo of practice, as a share. */
  speed: number;
  /** The bass part that is worked on; the first one where it is empty. */
  bassPart: string;
  bassTab: BassTab;
  grooveTab: GrooveTab;
  /** Steps of the drum grid, in ticks. */
  drumGrid: Ticks;
  lines: BassLine[];
  linesFor: string;
  busy: string | null;
  writeProblem: Problem | null;
  /** What is being auditioned instead of the song: shown and heard until it ends. */
  preview: { song: Song; label: string; id: string } | null;
  set(update: Partial<Omit<ViewState, "set">>): void;
}

export const useView = create<ViewState>((set) => ({
  section: "",
  zoom: 54,
  snap: "chord",
  grid: 240,
  names: false,
  folded: [],
  solo: [],
  selected: { part: "", ids: [] },
  chord: null,
  chords: [],
  chordTab: "write",
  wayIn: "symbols",
  playIn: false,
  loop: null,
  wholeSong: false,
  click: false,
  countIn: false,
  help: false,
  findings: [],
  harmony: null,
  verdict: null,
  offers: [],
  report: null,
  voicing: {},
  voicePart: "",
  voiceTab: "path",
  voicingPaths: [],
  notation: false,
  written: false,
  speed: 1,
  bassPart: "",
  bassTab: "write",
  grooveTab: "patterns",
  drumGrid: 120,
  lines: [],
  linesFor: "",
  busy: null,
  writeProblem: null,
  preview: null,
  set: (update) => set(update),
}));
