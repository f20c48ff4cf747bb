import { partOfReal, type SectionData } from "../app/store/sectionData";
import type { Axis } from "./axis";
import { STRIP_HEIGHT } from "./layout";

const PAD = 5;
/** Width of a drum hit. */
const HIT = 3;

/** A folded lane: where the part sounds, and how its pitches lie to each other. */
export function Strip({ data, part, axis }: { data: SectionData; part: string; axis: Axis }) {
  const real = partOfReal(data, part);
  const midis = real.notes.map((n) => n.midi);
  const [low, high] = [Math.min(...midis), Math.max(...midis)];
  const y = (midi: number) =>
    high > low ? PAD + ((high - midi) / (high - low)) * (STRIP_HEIGHT - 2 * PAD) : STRIP_HEIGHT / 2;
  return (
    <svg className="lane-svg" width={axis.width} height={STRIP_HEIGHT} aria-hidden="true">
      {real.role === "drums"
        ? data.real.hits.map((h, i) => (
            <line
              key={i}
              className="strip"
              x1={axis.x(h.start)}
              x2={axis.x(h.start) + HIT}
              y1={STRIP_HEIGHT / 2}
              y2={STRIP_HEIGHT / 2}
            />
          ))
        : real.notes.map((n) => (
            <line
              key={n.id}
              className="strip"
              x1={axis.x(n.start)}
              x2={axis.x(n.start + n.duration) - 1}
              y1={y(n.midi)}
              y2={y(n.midi)}
            />
          ))}
    </svg>
  );
}
