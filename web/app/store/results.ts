import { useLayoutEffect } from "react";
import { create } from "zustand";
import type {
  BassLine,
  BassVerdict,
  CounterLine,
  Edit,
  Finding,
  HarmonyReport,
  PitchName,
  Problem,
  SectionPath,
  SectionVoicing,
  Ticks,
  Verdict,
  VocalLines,
} from "../../../core/src/index";

/** A change that can be heard in place and taken. */
export interface Offer {
  id: string;
  label: string;
  /** What its line in the log says; "Took", and its label, where it does not say. */
  said?: string;
  edit: Edit;
  from: Ticks;
  to: Ticks;
  /** The edit is complete: no voicings or bass have to follow it. */
  whole?: boolean;
  /** More edits that are made with it when it is taken. */
  also?(): Promise<Edit[]>;
  /** What is done when it was taken. */
  taken?(): void;
}

interface ResultsState {
  findings: Finding[];
  /** Whether the section in view was checked: nothing is said of it before. */
  checked: "yet" | "done" | "failed";
  harmony: HarmonyReport | null;
  verdict: Verdict | null;
  /** Number of the harmony that is shown, so that it is not sent again. */
  harmonyNumber: number;
  /** What can be heard and taken now, in the order of the number keys. */
  offers: Offer[];
  report: BassVerdict | null;
  /** What the path chose, by part, and the numbers of what is shown. */
  voicing: Record<string, SectionVoicing>;
  layoutNumbers: Record<string, number>;
  /** Ways through the section that were asked for. */
  voicingPaths: SectionPath[];
  /** Voicings the user remembered to compare them with others. */
  remembered: { part: string; section: string; pitches: Record<string, PitchName[]> } | null;
  /** Written lines, and the bench, section and part they are for. */
  lines: (BassLine | CounterLine | VocalLines)[];
  linesFor: string;
  /** The request for lines that is under way, and whether it is to end with what it has found. */
  busy: string | null;
  stopping: boolean;
  writeProblem: Problem | null;
}

const inSection = () => ({
  checked: "yet" as const,
  harmonyNumber: -1,
  offers: [],
  voicing: {},
  layoutNumbers: {},
  voicingPaths: [],
  lines: [],
  linesFor: "",
  busy: null,
  stopping: false,
  writeProblem: null,
});
const initial = (): ResultsState => ({
  findings: [],
  harmony: null,
  verdict: null,
  report: null,
  remembered: null,
  ...inSection(),
});

/** What was computed from the song and is shown; nothing here is stored with it. */
export const useResults = create<ResultsState>(initial);

export const resetResults = (): void => useResults.setState(initial());

/**
 * Another section: offers and layouts belong to the one before; findings and harmony stand until the new ones are
 * there.
 */
export const leaveSectionResults = (): void => useResults.setState(inSection());

export const setOffers = (offers: Offer[]): void => useResults.setState({ offers });

/** Offers that the number keys hear while they are shown: from the moment one sees them. */
export function useOffers(offers: Offer[]): void {
  useLayoutEffect(() => {
    setOffers(offers);
    return () => setOffers([]);
  }, [offers]);
}

export const clearLines = (): void => useResults.setState({ lines: [], writeProblem: null });
