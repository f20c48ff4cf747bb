import { memo, useEffect } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { play, stop, useSound } from "../../app/audio/sound";
import { allNow } from "../../app/turns";
import { benchKey, type Bench } from "./benchKeys";

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

/** The keyboard of the workbench; lanes and inputs handle their own keys first. */
export const Keys = memo(function Keys({ data, workspace }: Bench) {
  useSpace();
  useHotkeys(
    "*",
    (e) => {
      if (e.defaultPrevented) return;
      allNow();
      const meant = benchKey(e, { data, workspace });
      // What has no use of its own in the browser is not kept from it.
      if (meant && (e.ctrlKey || e.metaKey || /^(F6|c|g)$/.test(e.key))) e.preventDefault();
    },
    OUTSIDE_TEXT,
    [data, workspace],
  );
  return null;
});
