import { sure } from "../../base/list";
import { z } from "zod";
import { must } from "../../base/result";
import { keyName, parseKey } from "../../theory/pitch/key";
import { parseMeter } from "../../theory/time/meter";
import { sectionMeter } from "../document";
import { KeyText, MeterText, SongFields, Swing, Tempo, Title } from "../schema";
import { defineEdit } from "./define";
import { meterRefused, rebar } from "./meters";

export const setTitle = defineEdit({
  name: "setTitle",
  title: "name the song",
  schema: { title: Title },
  apply: (song, { title }) => void (song.title = title),
});

export const setKey = defineEdit({
  name: "setKey",
  title: "set the key",
  schema: { key: KeyText },
  apply: (song, { key }) => void (song.key = keyName(must(parseKey(key)))),
});

export const setTempo = defineEdit({
  name: "setTempo",
  title: "set the tempo",
  schema: { tempo: Tempo },
  apply: (song, { tempo }) => void (song.tempo = tempo),
});

export const setSwing = defineEdit({
  name: "setSwing",
  title: "set the swing",
  schema: Swing.shape,
  apply: (song, { ratio, unit }) => void (song.swing = { ratio, unit }),
});

export const setProfile = defineEdit({
  name: "setProfile",
  title: "judge by another school",
  schema: { profile: SongFields.shape.profile },
  apply: (song, { profile }) => void (song.profile = profile),
});

/** How grave findings of a rule are in this song; null leaves it to the school. */
export const setSeverity = defineEdit({
  name: "setSeverity",
  title: "weigh a rule",
  schema: { rule: z.string().min(1).max(60), severity: z.enum(["fault", "warning", "note", "off"]).nullable() },
  apply(song, { rule, severity }) {
    const { [rule]: _, ...rest } = song.severities ?? {};
    const next = severity === null ? rest : { ...rest, [rule]: severity };
    if (Object.keys(next).length) song.severities = next;
    else delete song.severities;
  },
});

/**
 * Chords are shared out anew bar by bar, notes and hits keep their place in their bar. Refused where the new bar is too
 * short for them.
 */
export const setMeter = defineEdit({
  name: "setMeter",
  title: "set the meter",
  schema: { meter: MeterText },
  apply(draft, edit, { song, fresh }) {
    const meter = must(parseMeter(edit.meter));
    for (const section of song.sections) {
      const refused = section.meter ? null : meterRefused(song, section, sectionMeter(song, section), meter);
      if (refused) return refused;
    }
    for (const section of draft.sections) {
      if (section.meter) continue;
      const original = sure(song.sections.find((x) => x.id === section.id));
      rebar(section, original, sectionMeter(song, original), { meter, fresh });
    }
    draft.meter = meter.text;
  },
});
