import { sure } from "../../base/list";
import { must, type Problem } from "../../base/result";
import { keyName, parseKey } from "../../theory/pitch/key";
import { beatsText, parseMeter, type Meter, type Ticks } from "../../theory/time/meter";
import { cutAt, joined } from "../beyond";
import { sectionMeter, sectionOf } from "../document";
import { Bars, Duration, KeyText, MeterText, SectionId, Swing, Tempo, Title, type Section, type Song } from "../schema";
import { assign, copiedMaterial, defineEdit, draftOf, PlaceInForm, refuse } from "./define";
import { meterRefused, rebar } from "./meters";

/**
 * A section that becomes shorter keeps what lies past its end, out of everything; it comes back when the section is
 * longer again.
 */
export const setSection = defineEdit({
  name: "setSection",
  title: "name a section or set its length",
  whole: true,
  schema: { section: SectionId, name: Title.optional(), bars: Bars.optional() },
  apply(draft, { section, name, bars }, { song, fresh }) {
    const target = draftOf(draft, section);
    if (name !== undefined) target.name = name;
    const here = sure(sectionOf(song, section));
    if (bars === undefined || bars === here.bars) return;
    const { beyond, ...rest } = cutAt(
      joined(here, () => fresh("c")),
      bars * sectionMeter(song, here).bar,
    );
    Object.assign(target, rest, { bars, ...(name === undefined ? {} : { name }) });
    if (beyond) target.beyond = beyond;
    else delete target.beyond;
  },
});

type OwnTime = Pick<SectionTime, "key" | "tempo" | "meter" | "swing">;
type SectionTime = Parameters<typeof assign<Section>>[1];

/** What a section has for itself: null where it is what the song has, undefined where it is not asked. */
function ownIn(song: Song, { key, tempo, meter, swing }: OwnTime): OwnTime {
  const same = <T>(asked: T, has: boolean) => (has ? null : asked);
  const named = key && keyName(must(parseKey(key)));
  return {
    key: same(named, named === song.key),
    tempo: same(tempo, tempo === song.tempo),
    meter: same(meter, Boolean(meter) && must(parseMeter(meter ?? "")).text === song.meter),
    swing: same(swing, swing?.ratio === song.swing.ratio && swing?.unit === song.swing.unit),
  };
}

/**
 * Key, tempo, meter and swing of a section alone, where they are not the song's; null gives the song's back. The key is
 * only named: nothing is moved. The pickup is the room before bar 1 in which an upbeat is written; it is not made
 * shorter than what stands there.
 */
export const setSectionTime = defineEdit({
  name: "setSectionTime",
  title: "set the key, tempo, meter, swing or pickup of a section",
  whole: true,
  schema: {
    section: SectionId,
    key: KeyText.nullable().optional(),
    tempo: Tempo.nullable().optional(),
    meter: MeterText.nullable().optional(),
    swing: Swing.nullable().optional(),
    pickup: Duration.nullable().optional(),
  },
  apply(draft, { section, key, tempo, meter, swing, pickup }, { song, fresh }) {
    const here = sure(sectionOf(song, section));
    const target = draftOf(draft, section);
    if (meter !== undefined) {
      const [old, next] = [sectionMeter(song, here), must(parseMeter(meter ?? song.meter))];
      if (old.text !== next.text) {
        const refused = meterRefused(song, here, old, next);
        if (refused) return refused;
        rebar(target, here, old, { meter: next, fresh });
      }
    }
    if (pickup !== undefined) {
      const refused = pickupRefused(here, sectionMeter(song, here), pickup ?? 0);
      if (refused) return refused;
    }
    assign(target, { ...ownIn(song, { key, tempo, meter, swing }), pickup });
  },
});

/** Why a pickup cannot be so long. */
function pickupRefused({ name, notes }: Section, meter: Meter, pickup: Ticks): Problem | null {
  if (pickup > meter.bar)
    return refuse(
      "pickup",
      `A pickup is no longer than a bar: ${beatsText(meter, meter.bar)} here`,
      "Make the section a bar longer instead.",
    );
  const early = Object.values(notes)
    .flat()
    .find((n) => n.start < -pickup);
  return early
    ? refuse(
        "pickup",
        `${name} has ${early.pitch} ${beatsText(meter, -early.start)} before bar 1`,
        "Move or delete the note first.",
      )
    : null;
}

/**
 * A new section at a place of the form, or at its end: empty, or a copy of another with ids of its own. Made: the
 * section, its pass, then what is in it.
 */
export const addSection = defineEdit({
  name: "addSection",
  title: "add a section",
  schema: { name: Title, bars: Bars, copyOf: SectionId.optional(), at: PlaceInForm.optional() },
  apply(draft, edit, { song, fresh }) {
    const id = fresh("s");
    const source = edit.copyOf === undefined ? undefined : song.sections.find((s) => s.id === edit.copyOf);
    draft.form.splice(edit.at ?? draft.form.length, 0, { id: fresh("o"), sectionId: id });
    const { beyond: _, ...copied } = source ?? {};
    const fill: Omit<Section, "id" | "name"> = source
      ? {
          ...copiedMaterial(copied as Section, fresh),
          copyOf: source.id,
        }
      : { bars: edit.bars, chords: [], groove: { lanes: [] }, notes: {} };
    draft.sections.push({ ...fill, id, name: edit.name });
  },
});

/**
 * Everything that belongs to the section goes with it: its passes, takes and waivers; a line of the log stays, without
 * its place.
 */
export const removeSection = defineEdit({
  name: "removeSection",
  title: "remove a section",
  whole: true,
  schema: { section: SectionId },
  apply(draft, { section }) {
    if (draft.sections.length === 1) return refuse("section", "A song has at least one section");
    draft.sections = draft.sections.filter((s) => s.id !== section);
    for (const s of draft.sections) if (s.copyOf === section) delete s.copyOf;
    draft.form = draft.form.filter((p) => p.sectionId !== section);
    draft.waivers = draft.waivers.filter((w) => w.sectionId !== section);
    const gone = new Set(draft.takes.filter((t) => t.sectionId === section).map((t) => t.id));
    draft.takes = draft.takes.filter((t) => !gone.has(t.id));
    for (const entry of draft.log) {
      if (entry.takeId !== undefined && gone.has(entry.takeId)) delete entry.takeId;
      if (entry.where?.sectionId === section) delete entry.where;
    }
  },
});
