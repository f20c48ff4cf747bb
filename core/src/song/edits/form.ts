import { firstOf, nth, sure } from "../../base/list";
import { z } from "zod";
import { must } from "../../base/result";
import { keyName, parseKey } from "../../theory/pitch/key";
import { mod } from "../../theory/pitch/pitch";
import { counted } from "../../theory/words/english";
import { sectionKey, sectionMeter, sectionOf } from "../document";
import { cutMusic, withOwnBars } from "../place";
import {
  BarSpan,
  KeyText,
  LIMITS,
  PartId,
  PassId,
  SectionId,
  Title,
  Transposition,
  type Pass,
  type Song,
} from "../schema";
import { assign, copiedMaterial, defineEdit, draftOf, PlaceInForm, refuse } from "./define";
import { moveMaterial, movePassMaterial, moveRefused, moving, outOfMidi } from "./moving";

type OwnBars = NonNullable<Pass["own"]>[number];

const nameOf = (song: Song, sectionId: string): string => sectionOf(song, sectionId)?.name ?? sectionId;

/**
 * Plays a section once more: at a place of the form, or at its end; with all that is different in another pass of it,
 * where one is named.
 */
export const addPass = defineEdit({
  name: "addPass",
  title: "play a section once more",
  schema: { section: SectionId, at: PlaceInForm.optional(), like: PassId.optional() },
  apply(draft, { section, at = draft.form.length, like }, { song, fresh }) {
    if (at > song.form.length)
      return refuse(
        "pass",
        `The form has ${counted(song.form.length, "pass", "passes")}; there is no place ${at + 1} in it`,
      );
    const source = song.form.find((p) => p.id === like);
    if (source && source.sectionId !== section)
      return refuse("pass", `That pass is one of ${nameOf(song, source.sectionId)}`);
    // Bars that a pass has for itself are its own in each pass.
    const own = source?.own?.map((o) => copiedMaterial(o, fresh));
    draft.form.splice(at, 0, { ...source, ...(own ? { own } : {}), id: fresh("o"), sectionId: section });
  },
});

/** Moves a pass so that it stands before what was at a place; the number of passes is the place after the last one. */
export const movePass = defineEdit({
  name: "movePass",
  title: "move a pass",
  schema: { pass: PassId, to: PlaceInForm },
  apply(draft, { pass, to }, { song }) {
    const from = song.form.findIndex((p) => p.id === pass);
    if (to > song.form.length)
      return refuse(
        "pass",
        `The form has ${counted(song.form.length, "pass", "passes")}; there is no place ${to + 1} in it`,
      );
    if (to === from || to === from + 1)
      return refuse("pass", `${nameOf(song, nth(song.form, from).sectionId)} is there already`);
    const [moved] = draft.form.splice(from, 1);
    draft.form.splice(to > from ? to - 1 : to, 0, sure(moved));
  },
});

/**
 * What is different in one pass: its name, the bars that are played, its key, parts that are out. Null gives the
 * section's back.
 */
export const setPass = defineEdit({
  name: "setPass",
  title: "change one pass",
  schema: {
    pass: PassId,
    name: Title.nullable().optional(),
    bars: BarSpan.nullable().optional(),
    transpose: Transposition.nullable().optional(),
    muted: z.array(PartId).max(LIMITS.parts).nullable().optional(),
  },
  apply(draft, { pass, name, bars, transpose, muted }, { song }) {
    const before = sure(song.form.find((p) => p.id === pass));
    const section = sure(sectionOf(song, before.sectionId));
    if (bars && bars[1] > section.bars)
      return refuse(
        "pass",
        `${section.name} has ${counted(section.bars, "bar")}; bars ${bars[0] + 1} to ${bars[1]} are not all in it`,
      );
    const lost = transpose ? outOfMidi([withOwnBars(song, section, before)], transpose) : null;
    if (lost) return lost;
    const whole = bars && bars[0] === 0 && bars[1] === section.bars;
    assign(sure(draft.form.find((p) => p.id === pass)), {
      name: name === section.name ? null : name,
      bars: whole ? null : bars,
      transpose: transpose === 0 ? null : transpose,
      muted: muted && !muted.length ? null : muted && [...new Set(muted)],
    });
  },
});

/**
 * Gives back bars that a pass has for itself, all of them or those of a stretch, or of all only what of a kind is
 * there: the pass plays them as its section has them.
 */
export const giveBack = defineEdit({
  name: "giveBack",
  title: "give bars of a pass back",
  schema: { pass: PassId, bars: BarSpan.optional(), what: z.enum(["chords", "groove", "notes"]).optional() },
  apply(draft, { pass, bars, what }, { song }) {
    const target = sure(draft.form.find((p) => p.id === pass));
    const own = sure(song.form.find((p) => p.id === pass)).own ?? [];
    const section = sure(sectionOf(song, target.sectionId));
    const [from, to] = bars ?? [0, LIMITS.bars];
    const { bar } = sectionMeter(song, section);
    const outside = ({ bars: [a, b] }: OwnBars): [number, number][] => [
      [a, Math.min(b, from)],
      [Math.max(a, to), b],
    ];
    const kept = own.flatMap((o) =>
      outside(o).flatMap((span) => (span[0] < span[1] ? [{ bars: span, ...cutMusic(o, span, bar) }] : [])),
    );
    const others = what ? own.flatMap((o) => withoutKind(o, what)) : kept;
    if (others.length) target.own = others;
    else delete target.own;
  },
});

/** Own bars without what of a kind is there; none where nothing else is. */
function withoutKind(own: OwnBars, what: "chords" | "groove" | "notes"): OwnBars[] {
  const rest: OwnBars = { ...own };
  delete rest[what];
  return (rest.chords ?? rest.groove ?? rest.notes) ? [rest] : [];
}

/** Takes a pass out of the form; its section stays. */
export const removePass = defineEdit({
  name: "removePass",
  title: "take a pass out of the form",
  schema: { pass: PassId },
  apply(draft, { pass }) {
    if (draft.form.length === 1)
      return refuse("pass", "A form has at least one pass", "Add another one first, or delete the section.");
    draft.form = draft.form.filter((p) => p.id !== pass);
  },
});

/**
 * Moves one section to another key, the nearer way or by so many semitones, with the bars its passes have for
 * themselves and its takes: chords as written and typed, notes, layouts, shapes, glides, tuned drums. There and back is
 * the section as it was. How parts are held stays: a capo is one for the song.
 */
export const transposeSection = defineEdit({
  name: "transposeSection",
  title: "move a section to another key",
  whole: true,
  schema: { section: SectionId, key: KeyText, semitones: Transposition.optional() },
  apply(draft, { section, key, ...asked }, { song }) {
    const here = sure(sectionOf(song, section));
    const [from, to] = [sectionKey(song, here), must(parseKey(key))];
    const up = mod(firstOf(to.pcs) - firstOf(from.pcs), 12);
    const semitones = asked.semitones ?? (up > 6 ? up - 12 : up);
    const refused = moveRefused(from, to, semitones, [here]);
    if (refused) return refused;
    const move = moving(from, to, semitones);
    const target = draftOf(draft, section);
    moveMaterial(target, move);
    moveMaterial(target.beyond ?? {}, move);
    for (const pass of draft.form) if (pass.sectionId === section) movePassMaterial(pass, move);
    for (const take of draft.takes) if (take.sectionId === section) moveMaterial(take, move);
    if (keyName(to) === song.key) delete target.key;
    else target.key = keyName(to);
  },
});
