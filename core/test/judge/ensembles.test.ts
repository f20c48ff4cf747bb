import { firstOf, nth, sure } from "../../src/base/list";
import { random } from "../../src/base/random";
import { checkSong } from "../../src/judge/check/check";
import { ENSEMBLES, onKeys, playedBy, type Ensemble } from "./ensembles";
import { cleanSong, counts, FORMS, INJECTORS, shiftsOf } from "./putFaults";

/** Faults between voices and in them: they are told of whoever has the voices. */
const OF_VOICES = [
  "voice-crossing",
  "voice-parallels",
  "voice-spacing",
  "seventh",
  "leading-tone",
  "long-outside",
  "doubled-leading-tone",
].filter((rule) => INJECTORS[rule]);
/** Where lines played are told by another rule than lines sung. */
const ALSO: Record<string, readonly string[]> = { "voice-parallels": ["parallels"], "long-outside": ["clash"] };

const CLEAN = FORMS.map((_, form) => {
  const shifts = shiftsOf(form);
  return { form, ...cleanSong(form, nth(shifts, form % shifts.length)) };
});

test.each(Object.keys(ENSEMBLES) as Ensemble[])("what four singers do without a fault is without one for %s", (who) => {
  for (const { form, song, parts } of CLEAN)
    expect([
      nth(FORMS, form)[1],
      checkSong(playedBy(song, parts, who))
        .filter((f) => counts(f) && f.family === "voices")
        .map((f) => f.message),
    ]).toEqual([nth(FORMS, form)[1], []]);
});

test.each(Object.keys(ENSEMBLES) as Ensemble[])(
  "faults that are put into four voices are found when %s play them",
  (who) => {
    const next = random(5);
    const pick = (n: number) => Math.floor(next() * n);
    const told: string[] = [];
    for (const rule of OF_VOICES)
      for (const { form, song, parts } of CLEAN) {
        const faulty = sure(INJECTORS[rule])({ song, parts, pick });
        if (!faulty) continue;
        const found = checkSong(playedBy(faulty.song, parts, who), { profile: "chorale" })
          .filter(counts)
          .filter((f) => f.rule === rule || ALSO[rule]?.includes(f.rule));
        if (!found.some((f) => f.where.notes.some((n) => faulty.notes.includes(n))))
          told.push(`missed ${rule}: ${nth(FORMS, form)[1]}`);
      }
    expect(told).toEqual([]);
  },
);

test("parallels, sevenths and leading tones inside the chords of one player are told, lighter than between lines", () => {
  const next = random(7);
  const pick = (n: number) => Math.floor(next() * n);
  let [put, told] = [0, 0];
  for (const rule of ["voice-parallels", "seventh", "leading-tone"])
    for (const { song, parts } of CLEAN) {
      const faulty = sure(INJECTORS[rule])({ song, parts, pick });
      if (!faulty) continue;
      put++;
      const found = checkSong(onKeys(faulty.song, parts), { profile: "chorale" }).filter((f) => f.rule === rule);
      if (!found.length) continue;
      told++;
      expect([rule, firstOf(found).severity]).toEqual([rule, "warning"]);
    }
  // On keys nobody says which note goes where: what two voices exchange is heard as if each had stayed.
  expect(told / put).toBeGreaterThan(0.7);
});

test("names and notes of a crossing stand in one order: who is told first has the note that is told first", () => {
  const { song, parts } = nth(CLEAN, 1);
  const faulty = sure(
    Array.from({ length: 20 }, (_, i) => sure(INJECTORS["voice-crossing"])({ song, parts, pick: (n) => i % n })).find(
      (f) => f,
    ),
  );
  const played = playedBy(faulty.song, parts, "strings");
  for (const f of checkSong(played).filter((x) => x.rule === "voice-crossing")) {
    const [, name, pitch] = sure(/^(.*?) and .*: ([A-G][b#]?\d) and/.exec(f.message));
    const part = sure(played.parts.find((p) => p.name === name)).id;
    const own = sure(firstOf(played.sections).notes[part]).filter((n) => f.where.notes.includes(n.id));
    expect(own.map((n) => n.pitch)).toContain(pitch);
  }
});
