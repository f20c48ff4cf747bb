import { useEffect } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { type Part, Song } from "../../../core/src/index";
import { endPreview, play, stop, useSound } from "../../app/audio/sound";
import { acceptOffer, auditionOffer, auditionWritten, isWritten } from "../../app/commands/offers";
import { walkFound } from "../../app/commands/findings";
import { invertChord, moveRegister, nextInstrument, nextStyle } from "../../app/commands/voicings";
import { toggleSolo } from "../../score/LaneLabel";
import { clearLoop, toggleLoop, usePlayback } from "../../app/store/playback";
import { openTab, toggleFit, usePreferences, zoomBy } from "../../app/store/preferences";
import { useResults, type Offer } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { edit, songNow, useSong } from "../../app/store/song";

/** Keys count wherever no text is typed: sliders and check boxes have no use for them. */
const OUTSIDE_TEXT = {
  enableOnFormTags: true,
  ignoreEventWhen: (e: KeyboardEvent) => {
    const target = e.target as HTMLInputElement;
    return (
      /^(TEXTAREA|SELECT)$/.test(target.tagName) ||
      (target.tagName === "INPUT" && !/^(range|checkbox)$/.test(target.type))
    );
  },
};

const key = (keys: string, run: (e: KeyboardEvent) => unknown, own = false) => ({ keys, run, own });

/** Registers keys; `own`: the browser does nothing else with them. */
function useKeys(list: ReturnType<typeof key>[]): void {
  // The number of keys never changes, so that hooks are called in one order.
  for (const { keys, run, own } of list)
    // eslint-disable-next-line react-hooks/rules-of-hooks
    useHotkeys(
      keys,
      (e) => {
        if (own) e.preventDefault();
        run(e);
      },
      OUTSIDE_TEXT,
    );
}

/** Space always means play: it never presses the button that happens to have the focus. */
function useSpace(): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      if (
        e.code !== "Space" ||
        (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) && !OUTSIDE.test((target as HTMLInputElement).type))
      )
        return;
      e.preventDefault();
      e.stopPropagation();
      if (useSound.getState().playing) stop();
      else void play();
    };
    const swallow = (e: KeyboardEvent) => {
      if (e.code === "Space" && (e.target as HTMLElement).tagName === "BUTTON") e.preventDefault();
    };
    window.addEventListener("keydown", onKey, true);
    window.addEventListener("keyup", swallow, true);
    return () => {
      window.removeEventListener("keydown", onKey, true);
      window.removeEventListener("keyup", swallow, true);
    };
  }, []);
}
const OUTSIDE = /^(checkbox|range)$/;

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

/** The keyboard of the workbench; lanes and inputs handle their own keys first. */
export function Keys({ data, workspace }: { data: SectionData; workspace: string }) {
  useSpace();
  const { undo, redo } = useSong.getState();
  const voicing = (run: (way: 1 | -1) => void) => (e: KeyboardEvent) =>
    workspace === "voicings" && run(e.shiftKey ? -1 : 1);
  useKeys([
    key("mod+z", undo, true),
    key("mod+shift+z, mod+y", redo, true),
    key("l", () => toggleLoop(data.length)),
    key("shift+l, home", clearLoop),
    key("m", () => {
      const part = partAtHand();
      if (part) edit({ do: "setPart", part: part.id, muted: !part.muted });
    }),
    key("s", () => {
      const part = partAtHand();
      if (part) toggleSolo(part);
    }),
    key("equal, plus", () => zoomBy(1)),
    key("minus", () => zoomBy(-1)),
    key("f", toggleFit),
    key("1,2,3,4,5,6,7,8,9", (e) => {
      const offer = useResults.getState().offers[Number(e.key) - 1];
      if (offer) void auditionOffer(offer, data.meter.bar, data.length);
    }),
    key("a", () => compare(data)),
    key("t", () => {
      const offer = heardOffer();
      if (offer) void acceptOffer(offer);
    }),
    key("j", () => walkFound(1)),
    key("k", () => walkFound(-1)),
    key("escape", endPreview),
    key("c", (e) => {
      if (workspace !== "chords") return;
      e.preventDefault();
      openTab("chords", "write");
      openTab("ways in", "symbols");
      requestAnimationFrame(() => document.getElementById("line")?.focus());
    }),
    // One key each for what is changed most in Voicings, with Shift the other way; all of it is heard at once.
    key("i, shift+i", voicing(invertChord)),
    key("v, shift+v", voicing(nextStyle)),
    key("r, shift+r", voicing(moveRegister)),
    key("o, shift+o", voicing(nextInstrument)),
    key(
      "f6",
      () =>
        (document.activeElement?.closest("#panel")
          ? document.getElementById("score")
          : document.getElementById("panel")
        )?.focus(),
      true,
    ),
  ]);
  useHotkeys("shift+slash, ?", () => usePreferences.setState({ help: true }), { ...OUTSIDE_TEXT, useKey: true });
  return null;
}
