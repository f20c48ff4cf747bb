import { useEffect, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { endPreview, play, stop, useSound } from "../audio/sound";
import { useLineOffers } from "../panels/bass/lines";
import { auditionOffer, auditionWritten, acceptOffer } from "../panels/chords/offers";
import { auditionEdit } from "../panels/hear";
import { moveRegister, nextInstrument, nextStyle, invertChord } from "../panels/voicings/act";
import type { ScoreData } from "../score/data";
import { useSong } from "../store/song";
import { useView, type Offer, type Workspace } from "../store/view";

/** Keys count wherever no text is typed: sliders and check boxes have no use for them. */
const OUTSIDE_TEXT = {
  enableOnFormTags: true,
  ignoreEventWhen: (e: KeyboardEvent) => {
    const target = e.target as HTMLInputElement;
    return /^(TEXTAREA|SELECT)$/.test(target.tagName) || (target.tagName === "INPUT" && !/^(range|checkbox)$/.test(target.type));
  },
};

/** The keyboard of the workbench; lanes and inputs handle their own keys first. */
export function Keys({ data, workspace }: { data: ScoreData; workspace: Workspace }) {
  const { undo, redo, edit } = useSong();
  const view = useView();
  const lines = useLineOffers(data);
  const bass = data.song.parts.find((p) => p.role === "bass")?.id;
  const inChords = workspace === "chords" || workspace === "voicings" || workspace === "groove";
  const offers = inChords ? view.offers : lines;
  const heard = offers.findIndex((o) => view.preview?.id === o.id);
  const bar = data.meter.bar;
  const listen = (o: Offer) => (inChords ? void auditionOffer(o, bar, data.length) : auditionEdit(o.edit, o.label, o.id, o.from, o.to));
  const [remembered, setRemembered] = useState(0);
  useEffect(() => {
    if (heard >= 0) setRemembered(heard);
  }, [heard]);
  // Space always means play: it never presses the button that happens to have the focus.
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      if (e.code !== "Space" || (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) && (target as HTMLInputElement).type !== "checkbox"))
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
  const toggle = (list: string[], id: string) => (list.includes(id) ? list.filter((x) => x !== id) : [...list, id]);
  const lane = view.selected.part || bass || "";
  useHotkeys(
    "mod+z",
    (e) => {
      e.preventDefault();
      undo();
    },
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "mod+shift+z, mod+y",
    (e) => {
      e.preventDefault();
      redo();
    },
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "l",
    () => view.set({ wholeSong: false, loop: view.loop ? { ...view.loop, on: !view.loop.on } : { on: false, from: 0, to: data.length } }),
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "m",
    () => lane && edit({ do: "setPart", part: lane, muted: !data.song.parts.find((p) => p.id === lane)?.muted }),
    OUTSIDE_TEXT,
  );
  useHotkeys("s", () => lane && view.set({ solo: toggle(view.solo, lane) }), OUTSIDE_TEXT);
  useHotkeys("shift+slash, ?", () => view.set({ help: true }), { ...OUTSIDE_TEXT, useKey: true });
  useHotkeys("equal, plus", () => view.set({ zoom: Math.min(200, view.zoom * 1.25) }), OUTSIDE_TEXT);
  useHotkeys("minus", () => view.set({ zoom: Math.max(14, view.zoom / 1.25) }), OUTSIDE_TEXT);
  useHotkeys(
    "1,2,3,4,5,6,7,8,9",
    (e) => {
      const offer = offers[Number(e.key) - 1];
      if (offer) listen(offer);
    },
    OUTSIDE_TEXT,
  );
  // Before and after at the same spot: the offer heard last, and what is written.
  useHotkeys(
    "a",
    () => {
      const offer = offers[remembered];
      if (!offer) return;
      if (heard >= 0 && inChords) {
        stop();
        void auditionWritten(offer, bar, data.length);
      } else if (heard >= 0) {
        endPreview();
        void play();
      } else {
        stop();
        listen(offer);
      }
    },
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "t",
    () => {
      const offer = offers[heard] ?? (view.preview?.id.startsWith("written:") ? offers[remembered] : undefined);
      if (!offer) return;
      if (inChords) void acceptOffer(offer);
      else {
        endPreview();
        if (edit(offer.edit)) view.set({ lines: [] });
      }
    },
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "c",
    (e) => {
      if (workspace !== "chords") return;
      e.preventDefault();
      view.set({ chordTab: "write", wayIn: "symbols" });
      requestAnimationFrame(() => document.getElementById("line")?.focus());
    },
    OUTSIDE_TEXT,
  );
  // One key each for what is changed most in the Voicings workspace, with Shift the other way; all of it is heard at once.
  useHotkeys(
    "i, shift+i, v, shift+v, r, shift+r, o, shift+o",
    (e) => {
      if (workspace !== "voicings") return;
      const way = e.shiftKey ? -1 : 1;
      ({ i: invertChord, v: nextStyle, r: moveRegister, o: nextInstrument })[e.key.toLowerCase() as "i" | "v" | "r" | "o"](way);
    },
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "f6",
    (e) => {
      e.preventDefault();
      (document.activeElement?.closest("#panel") ? document.getElementById("score") : document.getElementById("panel"))?.focus();
    },
    OUTSIDE_TEXT,
  );
  useHotkeys("escape", () => endPreview(), OUTSIDE_TEXT);
  return null;
}
