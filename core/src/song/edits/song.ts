import { z } from "zod";
import { must } from "../../result";
import { keyName, parseKey } from "../../pitch/key";
import { parseMeter, positionText, type Ticks } from "../../time/meter";
import { readLine, writeLine } from "../../chord/progression";
import { sectionMeter } from "../document";
import { KeyText, MeterText, SongFields, Swing, Tempo, Title } from "../schema";
import { defineEdit, refuse } from "./define";

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

/** Chords are shared out anew bar by bar, notes and hits keep their place in their bar. Refused where the new bar is too short for them. */
export const setMeter = defineEdit({
  name: "setMeter",
  title: "set the meter",
  schema: { meter: MeterText },
  apply(draft, edit, { song, fresh }) {
    const meter = must(parseMeter(edit.meter));
    for (const section of song.sections) {
      if (section.meter) continue;
      const old = sectionMeter(song, section);
      const starts = [...Object.values(section.notes).flat(), ...section.groove.lanes.flatMap((l) => l.hits)].map((n) => n.start);
      const lost = starts.find((start) => start >= 0 && start % old.bar >= meter.bar);
      if (lost !== undefined)
        return refuse(
          "meter",
          `${section.name} has a note or hit at ${positionText(old, lost)}, past the end of a bar of ${meter.text}`,
          "Move or delete what lies past the end of the shorter bar first.",
        );
      const line = readLine(writeLine(section.chords, old, section.bars), meter);
      if (section.chords.length && line.problems.length)
        return refuse("meter", `${section.name}: ${line.problems[0]!.message}`, line.problems[0]!.hint);
    }
    for (const section of draft.sections) {
      if (section.meter) continue;
      const original = song.sections.find((x) => x.id === section.id)!;
      const old = sectionMeter(song, original);
      const move = (start: Ticks) => (start < 0 ? start : Math.floor(start / old.bar) * meter.bar + (start % old.bar));
      const { beyond } = section;
      for (const { notes = {}, groove } of beyond ? [section, beyond] : [section]) {
        for (const list of Object.values(notes)) for (const note of list) note.start = move(note.start);
        for (const lane of groove?.lanes ?? []) for (const hit of lane.hits) hit.start = move(hit.start);
        if (groove?.accents) groove.accents = groove.accents.filter((a) => a % old.bar < meter.bar).map(move);
      }
      for (const chord of beyond?.chords ?? []) {
        // A chord past the end takes whole bars of the new meter.
        const [from, to] = [chord.start, chord.start + chord.duration].map((t) => Math.round(t / old.bar) * meter.bar);
        chord.start = from!;
        chord.duration = Math.max(meter.bar, to! - from!);
      }
      if (!original.chords.length) continue;
      const line = readLine(writeLine(original.chords, old, original.bars), meter);
      section.chords = line.chords.map((c, i) => ({
        ...(original.chords[i]?.symbol === c.symbol ? original.chords[i]! : { id: fresh("c") }),
        ...c,
      }));
    }
    draft.meter = meter.text;
  },
});
