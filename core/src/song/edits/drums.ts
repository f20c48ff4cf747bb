import { nth, sure } from "../../base/list";
import { z } from "zod";
import { sectionMeter, sectionOf } from "../document";
import { Accents, DrumName, Groove, Hit, Lane, SectionTick, SectionId, type Lane as LaneType } from "../schema";
import { assign, defineEdit, draftOf, laneIn, refuse } from "./define";

const At = { section: SectionId, drum: DrumName };
const { hits, name, note, swing, offset, tuned } = Lane.shape;

/**
 * Strikes a drum at a tick, louder or softer where it is struck already; null takes the hit away. Loudness is rounded
 * and kept to 1–127.
 */
export const setHit = defineEdit({
  name: "setHit",
  title: "strike a drum",
  schema: { ...At, start: SectionTick, velocity: z.number().nullable() },
  apply(draft, { section, drum, start, velocity }, { song }) {
    // Looked for in the song: every hit that is looked at in a draft costs a draft of its own.
    const hits = sure(sectionOf(song, section)).groove.lanes.find((l) => l.drum === drum)?.hits ?? [];
    const at = hits.findIndex((h) => h.start === start);
    if (velocity === null) {
      if (at >= 0) laneIn(draftOf(draft, section), drum).hits.splice(at, 1);
      return;
    }
    const loud = Math.round(Math.min(127, Math.max(1, velocity)));
    const lane = laneIn(draftOf(draft, section), drum);
    if (at >= 0) nth(lane.hits, at).velocity = loud;
    else {
      const after = hits.findIndex((h) => h.start > start);
      lane.hits.splice(after < 0 ? hits.length : after, 0, { start, velocity: loud });
    }
  },
});

export const changeHit = defineEdit({
  name: "changeHit",
  title: "change a hit",
  schema: {
    ...At,
    start: SectionTick,
    change: z.strictObject({
      velocity: Hit.shape.velocity.optional(),
      offset: Hit.shape.offset.nullable(),
      duration: Hit.shape.duration.nullable(),
      pitch: Hit.shape.pitch.nullable(),
      glideTo: Hit.shape.glideTo.nullable(),
    }),
  },
  apply(draft, { section, drum, start, change }) {
    const hit = draftOf(draft, section)
      .groove.lanes.find((l) => l.drum === drum)
      ?.hits.find((h) => h.start === start);
    if (hit) assign(hit, change);
  },
});

/** Changes how a lane is named and played, or all its hits. */
export const setLane = defineEdit({
  name: "setLane",
  title: "change a lane",
  schema: {
    ...At,
    change: z.strictObject({
      hits: hits.optional(),
      name: name.nullable(),
      note: note.nullable(),
      swing: swing.nullable(),
      offset: offset.nullable(),
      tuned: tuned.nullable(),
    }),
  },
  apply: (draft, { section, drum, change }) => assign<LaneType>(laneIn(draftOf(draft, section), drum), change),
});

export const setDrums = defineEdit({
  name: "setDrums",
  title: "write a drum pattern",
  schema: { section: SectionId, lanes: Groove.shape.lanes },
  apply(draft, { section, lanes }) {
    if (new Set(lanes.map((l) => l.drum)).size < lanes.length) return refuse("drums", "Two lanes hold the same drum");
    draftOf(draft, section).groove.lanes = lanes;
  },
});

/** One bar of all drums, in every bar. */
export const repeatDrums = defineEdit({
  name: "repeatDrums",
  title: "repeat a bar of drums",
  schema: { section: SectionId, bar: z.int().min(0) },
  apply(draft, { section, bar: from }, { song }) {
    const here = sure(sectionOf(song, section));
    if (from >= here.bars) return refuse("bar", `${here.name} has ${here.bars} bars; there is no bar ${from + 1}`);
    const { bar } = sectionMeter(song, here);
    for (const lane of draftOf(draft, section).groove.lanes) {
      const pattern = lane.hits.filter((h) => h.start >= from * bar && h.start < (from + 1) * bar);
      lane.hits = Array.from({ length: here.bars }, (_, i) =>
        pattern.map((h) => ({ ...h, start: h.start + (i - from) * bar })),
      ).flat();
    }
  },
});

/** Main accents of the kick by hand; null leaves them to the rule. */
export const setAccents = defineEdit({
  name: "setAccents",
  title: "mark the main accents",
  schema: { section: SectionId, accents: Accents.nullable() },
  apply(draft, { section, accents }) {
    const { groove } = draftOf(draft, section);
    if (accents) groove.accents = [...new Set(accents)].sort((a, b) => a - b);
    else delete groove.accents;
  },
});
