import { useCallback, useEffect, useRef, type RefObject } from "react";
import type { Seconds } from "../../../core/src/index";
import { useSound } from "./sound";

/** How a playhead goes on: through these places, at even times, in so many seconds. */
export interface Way {
  /** Values of `transform`. */
  through: string[];
  seconds: Seconds;
}

/** A playhead that is not to be seen is asked for again so often; one that moves is set right as often, in seconds. */
const AGAIN: Seconds = 0.1;
const SET_RIGHT: Seconds = 2;

/**
 * A playhead: while the band plays, `way` says how it goes on, and the compositor moves it there: nothing is drawn and
 * nothing runs by the frame. Null: it is not to be seen. `again` asks anew, where something moved under it.
 */
export function useHead(way: (head: HTMLDivElement) => Way | null): {
  head: RefObject<HTMLDivElement | null>;
  again: () => void;
} {
  const playing = useSound((s) => s.playing);
  const since = useSound((s) => s.since);
  const head = useRef<HTMLDivElement>(null);
  const latest = useRef(way);
  const moving = useRef<{ animation: Animation | null; timer: ReturnType<typeof setTimeout> | undefined }>({
    animation: null,
    timer: undefined,
  });
  const halt = useCallback(() => {
    clearTimeout(moving.current.timer);
    moving.current.animation?.cancel();
    moving.current.animation = null;
  }, []);
  const again = useCallback(() => {
    const { current: element } = head;
    if (!element || !useSound.getState().playing) return;
    const next = latest.current(element);
    const { animation } = moving.current;
    element.style.display = next ? "block" : "none";
    if (next) {
      element.style.transform = next.through.at(-1) ?? "";
      moving.current.animation = element.animate(
        next.through.map((transform) => ({ transform })),
        { duration: Math.max(1, next.seconds * 1000), fill: "forwards" },
      );
    }
    animation?.cancel();
    clearTimeout(moving.current.timer);
    moving.current.timer = setTimeout(again, Math.max(AGAIN / 4, Math.min(next?.seconds ?? AGAIN, SET_RIGHT)) * 1000);
  }, []);
  useEffect(() => {
    const other = latest.current !== way;
    latest.current = way;
    if (other) again();
  }, [way, again]);
  useEffect(() => {
    if (playing) again();
    else if (head.current) head.current.style.display = "none";
    return halt;
  }, [playing, since, again, halt]);
  return { head, again };
}
