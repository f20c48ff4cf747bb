import { useEffect, useRef, type RefObject } from "react";
import { useSound } from "./sound";

/**
 * A playhead: while the band plays, `place` moves it once a frame, outside React, and says whether it is to be seen.
 */
export function useHead(place: (head: HTMLDivElement) => boolean): RefObject<HTMLDivElement | null> {
  const playing = useSound((s) => s.playing);
  const head = useRef<HTMLDivElement>(null);
  const latest = useRef(place);
  useEffect(() => {
    latest.current = place;
  });
  useEffect(() => {
    const show = (on: boolean) => {
      if (head.current) head.current.style.display = on ? "block" : "none";
    };
    if (!playing) return show(false);
    let frame = 0;
    const draw = () => {
      show(head.current !== null && latest.current(head.current));
      frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [playing]);
  return head;
}
