import { flushSync } from "react-dom";
import { type Part, Song } from "../../../core/src/index";
import { endPreview, stop } from "../../app/audio/sound";
import { acceptOffer, auditionOffer, auditionWritten, isWritten } from "../../app/commands/offers";
import { askLog } from "../../app/commands/log";
import { keepAtHand } from "../../app/commands/takes";
import { walkFound } from "../../app/commands/findings";
import { invertChord, moveRegister, nextInstrument, nextStyle } from "../../app/commands/voicings";
import { clearLoop, toggleLoop, usePlayback } from "../../app/store/playback";
import { openTab, toggleFit, usePreferences, zoomBy } from "../../app/store/preferences";
import { useResults, type Offer } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { edit, songNow, useSong } from "../../app/store/song";
import { runShortcut, withAny, type Press, type Shortcut } from "../../kit/shortcuts";
import { toggleSolo } from "../../score/LaneLabel";

/** The offer that is heard; while what is written is heard in its place, too. */
const heardOffer = (): Offer | undefined => {
  const { preview, lastOffer } = usePlayback.getState();
  const id = preview && isWritten(preview.id) ? lastOffer : preview?.id;
  return useResults.getState().offers.find((o) => o.id === id);
};

/** The part that mute and solo are about: that of the chosen note, or the bass. */
function partAtHand(): Part | undefined {
  const song = songNow();
  return Song.part(song, useSelection.getState().notes.part) ?? Song.partByRole(song, "bass");
}

/** Between the offer heard last and what is written, at the same spot. */
function compare({ meter, length }: SectionData): void {
  const { offers } = useResults.getState();
  const { preview, lastOffer } = usePlayback.getState();
  const now = offers.find((o) => o.id === preview?.id);
  const offer = now ?? offers.find((o) => o.id === lastOffer) ?? offers[0];
  if (!offer) return;
  stop();
  void (now ? auditionWritten : auditionOffer)(offer, meter.bar, length);
}

/** What the keys of the workbench are about. */
export interface Bench {
  data: SectionData;
  workspace: string;
}

/** A key of Voicings, with Shift the other way. */
const voicing =
  (run: (way: 1 | -1) => void) =>
  ({ workspace }: Bench, { shiftKey }: Press): boolean => {
    if (workspace !== "voicings") return false;
    run(shiftKey ? -1 : 1);
    return true;
  };

/** Keys for what is offered in the panel. */
export const OFFER_KEYS: readonly Shortcut<Bench>[] = [
  {
    keys: "1–9",
    what: "hear one",
    mouse: "Hear",
    on: [..."123456789"],
    run({ data }, press) {
      const offer = useResults.getState().offers[Number(press.key) - 1];
      if (offer) void auditionOffer(offer, data.meter.bar, data.length);
    },
  },
  { keys: "A", what: "back and forth between it and what is written", on: ["a"], run: ({ data }) => compare(data) },
  {
    keys: "T",
    what: "take the one that is heard",
    mouse: "Take",
    on: ["t"],
    run() {
      const offer = heardOffer();
      if (offer) void acceptOffer(offer);
    },
  },
  { keys: "Esc", what: "back to what is written", on: ["escape"], run: () => endPreview() },
];

/** Keys of Voicings: one for each thing that is changed most there; all of it is heard at once. */
export const VOICING_KEYS: readonly Shortcut<Bench>[] = [
  {
    keys: "I",
    what: "invert the chosen chord upwards; Shift downwards",
    mouse: "invert up, under Chord",
    on: withAny(["i"], "shift+"),
    run: voicing(invertChord),
  },
  { keys: "V", what: "next style; Shift back", on: withAny(["v"], "shift+"), run: voicing(nextStyle) },
  { keys: "R", what: "higher register; Shift lower", on: withAny(["r"], "shift+"), run: voicing(moveRegister) },
  { keys: "O", what: "next instrument; Shift back", on: withAny(["o"], "shift+"), run: voicing(nextInstrument) },
];

/** Keys that mean the same everywhere on the bench. Space and Tab are heard by the page itself. */
export const BENCH_KEYS: readonly Shortcut<Bench>[] = [
  { keys: "Space", what: "play, stop", mouse: "▶", on: [], run: () => false },
  { keys: "Home", what: "play from the beginning again", on: ["home"], run: () => clearLoop() },
  {
    keys: "L",
    what: "loop on, off",
    mouse: "drag in the ruler",
    on: ["l"],
    run: ({ data }) => toggleLoop(data.length),
  },
  {
    keys: "Shift L",
    what: "the whole section again",
    mouse: "clear, beside loop",
    on: ["shift+l"],
    run: () => clearLoop(),
  },
  {
    keys: "M",
    what: "mute the part of the chosen note",
    on: ["m"],
    run() {
      const part = partAtHand();
      if (part) edit({ do: "setPart", part: part.id, muted: !part.muted });
    },
  },
  {
    keys: "S",
    what: "solo the part of the chosen note",
    on: ["s"],
    run() {
      const part = partAtHand();
      if (part) toggleSolo(part);
    },
  },
  { keys: "Tab", what: "next lane", on: [], run: () => false },
  {
    keys: "F6",
    what: "between score and panel",
    on: ["f6"],
    run() {
      const inPanel = document.activeElement?.closest("#panel");
      document.getElementById(inPanel ? "score" : "panel")?.focus();
      return true;
    },
  },
  { keys: "+ −", what: "zoom", on: ["=", "+", "shift++", "-"], run: (_, { key }) => zoomBy(key === "-" ? -1 : 1) },
  { keys: "F", what: "the whole section in the window", on: ["f"], run: () => toggleFit() },
  {
    keys: "J, K",
    what: "next, previous thing that was found",
    mouse: "in Check",
    on: ["j", "k"],
    run: (_, { key }) => void walkFound(key.toLowerCase() === "j" ? 1 : -1),
  },
  {
    keys: "C",
    what: "to the chord line, in Chords",
    on: ["c"],
    run({ workspace }) {
      if (workspace !== "chords") return false;
      // The next key may come before the next frame: the line has to be there now.
      flushSync(() => {
        openTab("chords", "write");
        openTab("ways in", "symbols");
      });
      document.getElementById("line")?.focus();
      return true;
    },
  },
  {
    keys: "Shift T",
    what: "keep a take: of the part of the chosen note, else of everything",
    mouse: "in Log",
    on: ["shift+t"],
    run: () => void keepAtHand(),
  },
  { keys: "G", what: "write a line into the log", mouse: "in Log", on: ["g"], run: () => askLog() },
  { keys: "Ctrl Z", what: "undo", on: ["mod+z"], run: () => (useSong.getState().undo(), true) },
  {
    keys: "Ctrl Shift Z",
    what: "redo",
    on: ["mod+shift+z", "mod+y"],
    run: () => (useSong.getState().redo(), true),
  },
  { keys: "?", what: "this list", on: withAny(["?"], "shift+"), run: () => usePreferences.setState({ help: true }) },
];

/** Runs what a press means anywhere on the bench. True when it meant something. */
export const benchKey = (press: Press, bench: Bench): boolean =>
  [BENCH_KEYS, OFFER_KEYS, VOICING_KEYS].some((rows) => runShortcut(rows, press, bench));
