import { create } from "zustand";
import type { BassLine, BassReport, Finding, Problem, SectionVoicing, Song, Ticks } from "../../core/src/index";

export const WORKSPACES = ["groove", "chords", "voicings", "bass", "check", "handover"] as const;
export type Workspace = (typeof WORKSPACES)[number];
export type Snap = "chord" | "scale" | "semitone";

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
  chord: string | null;
  loop: { on: boolean; from: Ticks; to: Ticks } | null;
  wholeSong: boolean;
  click: boolean;
  countIn: boolean;
  help: boolean;

  findings: Finding[];
  report: BassReport | null;
  voicing: SectionVoicing | null;
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
  loop: null,
  wholeSong: false,
  click: false,
  countIn: false,
  help: false,
  findings: [],
  report: null,
  voicing: null,
  lines: [],
  linesFor: "",
  busy: null,
  writeProblem: null,
  preview: null,
  set: (update) => set(update),
}));
