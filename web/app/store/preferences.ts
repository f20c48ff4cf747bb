import { create } from "zustand";
import { Meter, type Ticks } from "../../../core/src/index";

export type Snap = "chord" | "scale" | "semitone";

interface PreferencesState {
  /** Pixels a quarter note. */
  zoom: number;
  /**
   * The zoom follows the window: as many whole bars as read well, or all bars of the section; null after zooming by
   * hand.
   */
  fit: "bars" | "section" | null;
  snap: Snap;
  /** Time grid of notes, and steps of the drum grid. */
  grid: Ticks;
  drumGrid: Ticks;
  /** Whether a voice of a chord is changed every time its chord is struck, or in one stroke. */
  voicesOf: "chord" | "stroke";
  /** Note names instead of roles. */
  names: boolean;
  /** Show the parts as notes on staves, and those as the player of a transposing instrument reads them. */
  notation: boolean;
  written: boolean;
  /** The verse whose words are shown and typed, from 0. */
  verse: number;
  /** Keys of the computer play notes. */
  playIn: boolean;
  help: boolean;
  /** The bass goes along with changed chords, in listening and in taking. */
  bassFollows: boolean;
  /** Width of the panel in pixels; null is the usual one. */
  panelWidth: number | null;
  /** The open tab of each row of tabs, by its name; the first one where none was opened. */
  tabs: Record<string, string>;
}

const initial = (): PreferencesState => ({
  zoom: 54,
  fit: "bars",
  snap: "chord",
  grid: Meter.EIGHTH,
  drumGrid: Meter.SIXTEENTH,
  voicesOf: "chord",
  names: false,
  notation: false,
  written: false,
  verse: 0,
  playIn: false,
  help: false,
  bassFollows: true,
  panelWidth: null,
  tabs: {},
});

/** How the user likes to look and work; it outlives the song. */
export const usePreferences = create<PreferencesState>(initial);

/** Everything as it is for a newcomer. */
export const resetPreferences = (): void => usePreferences.setState(initial());

const ZOOM_STEP = 1.25;
const LEAST_ZOOM = 6;
const MOST_ZOOM = 200;

export const zoomBy = (direction: 1 | -1): void => {
  const { zoom } = usePreferences.getState();
  usePreferences.setState({
    fit: null,
    zoom: Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, zoom * ZOOM_STEP ** direction)),
  });
};

/** All bars of the section in the window, or as many as read well. */
export const toggleFit = (): void =>
  usePreferences.setState({ fit: usePreferences.getState().fit === "section" ? "bars" : "section" });

/** Opens a tab of a row of tabs. */
export const openTab = (row: string, tab: string): void =>
  usePreferences.setState({ tabs: { ...usePreferences.getState().tabs, [row]: tab } });
