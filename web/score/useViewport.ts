import { sure } from "../../core/src/index";
import { useCallback, useEffect, useLayoutEffect, useRef, useState, type RefObject } from "react";
import { playedIn } from "../app/audio/sound";
import { useHead } from "../app/audio/useHead";
import type { Finding } from "../../core/src/index";
import { useSelection } from "../app/store/selection";
import type { Axis } from "./axis";
import { LABEL_WIDTH, TOP_HEIGHT } from "./layout";

export interface Viewport {
  ref: RefObject<HTMLDivElement | null>;
  /** How far it is scrolled, rounded, so that scrolling draws anew only now and then. */
  left: number;
  width: number;
  height: number;
  onScroll(): void;
}

const ROUND = 200;

/** Size and place of the part of the score that is in sight. */
export function useViewport(): Viewport {
  const ref = useRef<HTMLDivElement>(null);
  const [box, setBox] = useState({ left: 0, width: 900, height: 500 });
  const measure = useCallback(() => {
    const el = ref.current;
    if (!el) return;
    const left = Math.floor(el.scrollLeft / ROUND) * ROUND;
    const { clientWidth: width, clientHeight: height } = el;
    setBox((b) => (b.left === left && b.width === width && b.height === height ? b : { left, width, height }));
  }, []);
  useLayoutEffect(() => {
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(sure(ref.current));
    return () => observer.disconnect();
  }, [measure]);
  return { ref, ...box, onScroll: measure };
}

/** Pixels the playhead may come near the edge, and where it is put when the page turns. */
const NEAR = 30;
const TURNED = 40;

/** The playhead over the lanes: it goes up to the edge, then the page turns. */
export const usePlayhead = (viewport: RefObject<HTMLDivElement | null>, axis: Axis) =>
  useHead(
    useCallback(() => {
      const played = playedIn(useSelection.getState().section);
      const view = viewport.current;
      if (!played || !view) return null;
      const x = axis.x(played.tick);
      const room = view.clientWidth - LABEL_WIDTH - NEAR;
      const inView = x - view.scrollLeft;
      if (inView >= room || inView < 0) view.scrollLeft = Math.max(0, x - TURNED);
      const end = axis.x(played.until);
      const to = Math.max(x, Math.min(end, view.scrollLeft + room));
      const at = (place: number) => `translateX(${LABEL_WIDTH + place}px)`;
      return { through: [at(x), at(to)], seconds: end > x ? (played.seconds * (to - x)) / (end - x) : 0 };
    }, [viewport, axis]),
  );

/**
 * Scrolls as far as it takes to show a lane; the keyboard stays where it was, which `scrollIntoView` does not promise.
 */
export function showLane(view: HTMLElement, part: string | undefined): void {
  const lane = document.getElementById(`lane-${part}`);
  if (!lane) return;
  const [box, room] = [lane.getBoundingClientRect(), view.getBoundingClientRect()];
  const above = box.top - room.top - TOP_HEIGHT;
  const below = box.bottom - room.bottom;
  if (above < 0 || below > 0) view.scrollTop += above < 0 ? above : Math.min(above, below);
}

/** Brings the place of a finding that is looked at into sight: its bar, and the lane of its first part. */
export function useFound(viewport: RefObject<HTMLDivElement | null>, axis: Axis, findings: readonly Finding[]): void {
  const found = useSelection((s) => s.found);
  useEffect(() => {
    const place = found === null ? undefined : findings.flatMap((f) => f.places).find((p) => p.id === found);
    const view = viewport.current;
    if (!place || !view) return;
    const x = axis.x(place.tick);
    const inView = x - view.scrollLeft;
    if (inView < 0 || inView > view.clientWidth - LABEL_WIDTH - TURNED)
      view.scrollLeft = Math.max(0, x - view.clientWidth / 3);
    showLane(view, place.parts[0]);
    // What is found anew after an edit moves nothing.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [found]);
}
