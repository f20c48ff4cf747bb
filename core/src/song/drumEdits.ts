import type { Draft } from "immer";
import type { Result } from "../result";
import { sectionMeter } from "./document";
import { checked, done, field, type Applied, type Edit } from "./edit";
import type { Drum } from "./drums";
import type { Section, Song } from "./schema";

export type DrumEdit = Extract<Edit, { do: "setHit" | "changeHit" | "setLane" | "setDrums" | "repeatDrums" | "setAccents" }>;

const loudness = (velocity: number): number => Math.round(Math.min(127, Math.max(1, velocity)));

const laneOf = (section: Draft<Section>, drum: Drum) => {
  let lane = section.groove.lanes.find((l) => l.drum === drum);
  if (!lane) section.groove.lanes.push((lane = { drum, hits: [] }));
  return lane;
};

/** Drums of a section: single hits, whole lanes, whole patterns, accents. */
export function drumEdit(song: Song, section: Section, edit: DrumEdit): Result<Applied> {
  const inSection = (recipe: (s: Draft<Section>) => void) => done(song, (s) => recipe(s.sections.find((x) => x.id === section.id)!));
  const lanes = field.sections.element.shape.groove.shape.lanes;
  switch (edit.do) {
    case "setHit":
      return inSection((s) => {
        const lane = laneOf(s, edit.drum);
        const hit = lane.hits.find((h) => h.start === edit.start);
        if (edit.velocity === null) lane.hits = lane.hits.filter((h) => h.start !== edit.start);
        else if (hit) hit.velocity = loudness(edit.velocity);
        else {
          lane.hits.push({ start: edit.start, velocity: loudness(edit.velocity) });
          lane.hits.sort((a, b) => a.start - b.start);
        }
      });
    case "changeHit": {
      const hit = section.groove.lanes.find((l) => l.drum === edit.drum)?.hits.find((h) => h.start === edit.start);
      if (!hit) return done(song, () => undefined);
      const changed: Record<string, unknown> = { ...hit, ...edit.change };
      for (const [name, value] of Object.entries(edit.change)) if (value === null) delete changed[name];
      const valid = checked("hit", lanes.element.shape.hits.element, changed);
      if (!valid.ok) return valid;
      return inSection((s) => {
        const lane = laneOf(s, edit.drum);
        lane.hits = lane.hits.map((h) => (h.start === edit.start ? valid.value : h));
      });
    }
    case "setLane": {
      const before = section.groove.lanes.find((l) => l.drum === edit.drum) ?? { drum: edit.drum, hits: [] };
      const changed: Record<string, unknown> = { ...before, ...edit.change };
      for (const [name, value] of Object.entries(edit.change)) if (value === null) delete changed[name];
      const valid = checked("lane", lanes.element, changed);
      if (!valid.ok) return valid;
      return inSection((s) => {
        s.groove.lanes = s.groove.lanes.some((l) => l.drum === edit.drum)
          ? s.groove.lanes.map((l) => (l.drum === edit.drum ? valid.value : l))
          : [...s.groove.lanes, valid.value];
      });
    }
    case "setDrums": {
      const valid = checked("drums", lanes, edit.lanes);
      return valid.ok ? inSection((s) => void (s.groove.lanes = valid.value)) : valid;
    }
    case "repeatDrums": {
      const bar = sectionMeter(song, section).bar;
      return inSection((s) => {
        for (const lane of s.groove.lanes) {
          const pattern = lane.hits.filter((h) => h.start >= edit.bar * bar && h.start < (edit.bar + 1) * bar);
          lane.hits = Array.from({ length: s.bars }, (_, i) =>
            pattern.map((h) => ({ ...h, start: h.start + (i - edit.bar) * bar })),
          ).flat();
        }
      });
    }
    case "setAccents":
      return inSection((s) => {
        if (edit.accents) s.groove.accents = [...new Set(edit.accents)].sort((a, b) => a - b);
        else delete s.groove.accents;
      });
  }
}
