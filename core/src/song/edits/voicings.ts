import { sure } from "../../base/list";
import { z } from "zod";
import { ChordId, PartId, PassId, SectionId, Voicing } from "../schema";
import { defineEdit, draftOf } from "./define";

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
      if (wanted) (event.voicings ??= {})[part] = { ...stored, pitches: wanted };
      else if (stored) delete sure(event.voicings)[part];
    }
  },
});

/**
 * Stores the layouts a part has in one pass alone, by chord and in the key of the section; null gives those of the
 * section back.
 */
export const setPassVoicings = defineEdit({
  name: "setPassVoicings",
  title: "store the layouts of one pass",
  schema: { pass: PassId, part: PartId, pitches: z.record(ChordId, Pitches).nullable() },
  apply(draft, { pass, part, pitches }) {
    const target = sure(draft.form.find((p) => p.id === pass));
    const voicings = { ...target.voicings };
    if (pitches) voicings[part] = pitches;
    else delete voicings[part];
    if (Object.keys(voicings).length) target.voicings = voicings;
    else delete target.voicings;
  },
});

/** Pins a layout of a chord, or lets it go. */
export const pinVoicing = defineEdit({
  name: "pinVoicing",
  title: "pin a layout or let it go",
  schema: { section: SectionId, part: PartId, chord: ChordId, pitches: Pitches.nullable() },
  apply(draft, { section, part, chord, pitches }) {
    const event = sure(draftOf(draft, section).chords.find((c) => c.id === chord));
    if (pitches) (event.voicings ??= {})[part] = { pitches, pinned: true };
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
