import { create } from "zustand";

interface SelectionState {
  /** The section in view, and the pass of it that was chosen in the form. */
  section: string;
  pass: string | null;
  /** What is written is meant for the pass in view alone. */
  here: boolean;
  /** Chosen notes of one part. */
  notes: { part: string; ids: string[] };
  /** The chord in focus, and all chosen ones (the one in focus among them; the first is where the row was begun). */
  chord: string | null;
  chords: string[];
  /** The part whose voicings are worked on; the first one where it is empty. */
  voicePart: string;
  /** The bass part that is worked on; the first one where it is empty. */
  bassPart: string;
  /** The tune or counter melody that is worked on; the first one where it is empty. */
  linePart: string;
  /** The place of a finding that is looked at, by its id. */
  found: string | null;
  /** Lanes the user unfolded (true) or folded to a strip (false); the others fold by themselves. */
  lanes: Record<string, boolean>;
}

const NO_NOTES = { part: "", ids: [] };
const inSection = () => ({ notes: NO_NOTES, chord: null, chords: [], found: null });
const initial = (): SelectionState => ({
  section: "",
  pass: null,
  here: false,
  ...inSection(),
  voicePart: "",
  bassPart: "",
  linePart: "",
  lanes: {},
});

/** What is chosen: the section in view, notes and chords in it, and the parts that are worked on. */
export const useSelection = create<SelectionState>(initial);

/** Nothing is chosen but the section in view. */
export const resetSelection = (section: string): void => useSelection.setState({ ...initial(), section });

/** Brings another section into view; what was chosen belongs to the one before. */
export const showSection = (section: string): void =>
  useSelection.setState({ ...inSection(), section, pass: null, here: false });

/** Brings a pass into view; what was chosen in its section stays chosen. */
export const showPass = (section: string, pass: string): void =>
  useSelection.setState((s) => ({
    ...(section === s.section ? {} : inSection()),
    section,
    pass,
    here: s.here && s.pass === pass,
  }));

/** What is written from now on is for the pass in view alone, or for its section. */
export const writeHere = (section: string, pass: string, here: boolean): void =>
  useSelection.setState({ section, pass, here });

/** Chooses notes of a part. */
export const chooseNotes = (part: string, ids: string[]): void => useSelection.setState({ notes: { part, ids } });

export const chooseNoNotes = (): void => useSelection.setState({ notes: NO_NOTES });

/** Puts the focus on a chord, alone or in a row of chosen ones; null chooses none. */
export const chooseChord = (chord: string | null, chords: string[] = chord === null ? [] : [chord]): void =>
  useSelection.setState({ chord, chords });

export const setLane = (part: string, open: boolean): void =>
  useSelection.setState({ lanes: { ...useSelection.getState().lanes, [part]: open } });
