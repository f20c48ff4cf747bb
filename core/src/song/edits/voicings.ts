import { given } from "../../base/given";
import { sure } from "../../base/list";
import { z } from "zod";
import { ChordId, HeldShape, PartId, PassId, SectionId, Stroke, Voicing } from "../schema";
import { layoutIn } from "../layouts";
import { defineEdit, draftOf, refuse } from "./define";

const Pitches = Voicing.shape.pitches;

/** Stores the layouts of a part by chord; what is not named is no longer voiced, what is pinned stays. */
export const setVoicings = defineEdit({
  name: "setVoicings",
  title: "store layouts",
  schema: { section: SectionId, part: PartId, pitches: z.record(ChordId, Pitches) },
  apply(draft, { section, part, pitches }) {
    for (const event of draftOf(draft, section).chords) {
      const wanted = pitches[event.id];
      const stored = event.voicings?.[part];
      if (stored?.pinned || (stored && event.pinned)) continue;
      if (wanted) {
        const { shape, ...rest } = { ...stored };
        const held = shape && sure(stored).pitches.join() === wanted.join() ? { shape } : {};
        (event.voicings ??= {})[part] = { ...rest, pitches: wanted, ...held };
      } else if (stored) delete sure(event.voicings)[part];
    }
  },
});

/**
 * Stores the layouts a part has in one pass alone, by chord and in the key of the section; what is pinned there stays.
 * Null gives those of the section back.
 */
export const setPassVoicings = defineEdit({
  name: "setPassVoicings",
  title: "store the layouts of one pass",
  schema: { pass: PassId, part: PartId, pitches: z.record(ChordId, Pitches).nullable() },
  apply(draft, { pass, part, pitches }) {
    const target = sure(draft.form.find((p) => p.id === pass));
    const voicings = { ...target.voicings };
    const stored = voicings[part] ?? {};
    if (pitches)
      voicings[part] = Object.fromEntries(
        Object.entries(pitches).map(([chord, wanted]) => {
          const was = stored[chord] && layoutIn(stored[chord]);
          return [chord, was?.pinned ? was : { pitches: wanted }];
        }),
      );
    else delete voicings[part];
    if (Object.keys(voicings).length) target.voicings = voicings;
    else delete target.voicings;
  },
});

/** Pins a layout of a chord, as it is held on a neck where that is said, or lets it go. */
export const pinVoicing = defineEdit({
  name: "pinVoicing",
  title: "pin a layout or let it go",
  schema: {
    section: SectionId,
    part: PartId,
    chord: ChordId,
    pitches: Pitches.nullable(),
    shape: HeldShape.optional(),
  },
  apply(draft, { section, part, chord, pitches, shape }) {
    const event = sure(draftOf(draft, section).chords.find((c) => c.id === chord));
    if (pitches)
      (event.voicings ??= {})[part] = {
        pitches,
        pinned: true,
        ...given({ shape, strokes: event.voicings?.[part]?.strokes }),
      };
    else delete event.voicings?.[part]?.pinned;
  },
});

/** Asks for a top or a lowest note of a chord; null lets it go. */
export const pinEnds = defineEdit({
  name: "pinEnds",
  title: "ask for a top or lowest note",
  schema: {
    section: SectionId,
    part: PartId,
    chord: ChordId,
    top: Voicing.shape.top.unwrap().nullable().optional(),
    bottom: Voicing.shape.bottom.unwrap().nullable().optional(),
  },
  apply(draft, { section, part, chord, ...ends }) {
    const event = sure(draftOf(draft, section).chords.find((c) => c.id === chord));
    const pitch = ends.top ?? ends.bottom;
    if (!pitch && !event.voicings?.[part]) return;
    const voicing = ((event.voicings ??= {})[part] ??= { pitches: [sure(pitch)] });
    for (const end of ["top", "bottom"] as const) {
      const wish = ends[end];
      if (wish) voicing[end] = wish;
      else if (wish === null) delete voicing[end];
    }
    // An end that is pinned anew lets the rest of the chord go.
    if (pitch) delete voicing.pinned;
  },
});

/** Changes single strokes of a chord as one part plays it; none give back what its layout and rhythm make. */
export const setStrokes = defineEdit({
  name: "setStrokes",
  title: "change single strokes of a chord",
  schema: { section: SectionId, part: PartId, chord: ChordId, strokes: z.array(Stroke).max(1000) },
  apply(draft, { section, part, chord, strokes }, { song }) {
    const event = sure(draftOf(draft, section).chords.find((c) => c.id === chord));
    const { link } = sure(song.parts.find((p) => p.id === part));
    const layout = event.voicings?.[part] ?? event.voicings?.[link?.from ?? part];
    if (!layout) return refuse("strokes", "The part has no layout of this chord");
    const { strokes: _, ...rest } = layout;
    const own = event.voicings?.[part] ? rest : { pitches: rest.pitches };
    (event.voicings ??= {})[part] = { ...own, ...(strokes.length ? { strokes } : {}) };
  },
});
