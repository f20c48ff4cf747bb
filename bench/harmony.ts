/**
 * Naming chords against an independent library (`tonal`), and the page while sixteen bars are reharmonized and
 * harmonized.
 */
import { firstOf, nth, sure } from "../core/src/base/list";
import { Chord as TonalChord, Note as TonalNote } from "tonal";
import { Chord, must, Pitch } from "../core/src/index";
import { longSong } from "./songs";
import { trace } from "./trace";

const QUALITIES = [
  "",
  "m",
  "7",
  "maj7",
  "m7",
  "m7b5",
  "dim7",
  "6",
  "m6",
  "sus4",
  "7sus4",
  "9",
  "m9",
  "maj9",
  "13",
  "7(b9)",
  "aug",
  "(add9)",
  "mMaj7",
  "9sus4",
];
const ROOTS = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];

interface Case {
  intended: Chord;
  notes: string[];
  kind: "whole" | "left out" | "added";
}

/**
 * A thousand note sets from known chords: half whole, a quarter without the fifth, a quarter with a foreign note added.
 * Repeatable.
 */
function cases(): Case[] {
  let seed = 7;
  const next = (n: number) => (seed = (seed * 16807) % 2147483647) % n;
  return Array.from({ length: 1000 }, (_, i): Case => {
    const intended = must(Chord.parse(nth(ROOTS, next(12)) + nth(QUALITIES, next(QUALITIES.length))));
    const tones = intended.tones.map((t) => ({
      degree: t.degree,
      name: Pitch.transpose(intended.root, t.degree - 1, t.semitones),
    }));
    let kind: "left out" | "added" | "whole";
    if (i % 4 === 1 && tones.length > 3 && tones.some((t) => t.degree === 5)) kind = "left out";
    else if (i % 4 === 3) kind = "added";
    else kind = "whole";
    let notes = tones.filter((t) => kind !== "left out" || t.degree !== 5).map((t) => t.name);
    if (kind === "added") {
      const free = ["9", "11", "13"]
        .map((d) => Pitch.transpose(intended.root, Number(d) - 1, sure({ 9: 14, 11: 17, 13: 21 }[d as "9"])))
        .filter((n) => !notes.map((x) => TonalNote.chroma(x)).includes(TonalNote.chroma(n)));
      if (free.length) notes.push(nth(free, next(free.length)));
    }
    // Half of the sets in root position, half turned.
    if (next(2)) {
      const turn = next(notes.length);
      notes = [...notes.slice(turn), ...notes.slice(0, turn)];
    }
    return { intended, notes, kind };
  });
}

const set = (pcs: readonly (number | undefined)[]): string => [...new Set(pcs)].sort().join();

export async function harmony(browser: boolean): Promise<void> {
  const all = cases();
  const pcs = (chord: Chord) =>
    set(Chord.pitchClasses({ root: chord.root, quality: chord.quality, tones: chord.tones }));
  const ours = all.map((c) => Chord.identify({ pitches: c.notes, bass: firstOf(c.notes) }));
  const theirs = all.map((c) => TonalChord.detect(c.notes));
  const right = (kind: Case["kind"] | null) => {
    const chosen = all.map((c, i) => ({ c, i })).filter(({ c }) => kind === null || c.kind === kind);
    const we = chosen.filter(({ c, i }) => {
      const first = nth(ours, i)[0] && must(Chord.parse(firstOf(nth(ours, i)).symbol));
      if (!first) return false;
      const added = c.kind === "added";
      return (
        TonalNote.chroma(first.root) === TonalNote.chroma(c.intended.root) &&
        (added
          ? Chord.pitchClasses(c.intended).every((pc) => Chord.pitchClasses(first).includes(pc))
          : pcs(first) === pcs(c.intended))
      );
    }).length;
    const they = chosen.filter(({ c, i }) => {
      const name = nth(theirs, i)[0];
      if (!name) return false;
      const read = TonalChord.get(name.replace(/\/[A-G][b#]*$/, ""));
      if (read.empty || TonalNote.chroma(read.tonic ?? "") !== TonalNote.chroma(c.intended.root)) return false;
      const notes = read.notes.map((n) => TonalNote.chroma(n));
      return c.kind === "added"
        ? Chord.pitchClasses(c.intended).every((pc) => notes.includes(pc))
        : set(notes) === pcs(c.intended);
    }).length;
    return `${((we / chosen.length) * 100).toFixed(0)} % against ${((they / chosen.length) * 100).toFixed(0)} %`;
  };
  const time = (run: () => void) => {
    run();
    const t = performance.now();
    run();
    return performance.now() - t;
  };
  const mine = time(() => all.forEach((c) => Chord.identify({ pitches: c.notes, bass: firstOf(c.notes) })));
  const detect = time(() => all.forEach((c) => TonalChord.detect(c.notes)));
  console.log(
    `1000 note sets, intended chord named first, ours against tonal's detection: all ${right(null)}; whole ` +
      `${right("whole")}; fifth left out ${right("left out")}; a note added ${right("added")}`,
  );
  console.log(
    `  time ${(mine / detect).toFixed(1)} × tonal's detection (${(mine / 1000).toFixed(2)} ms a set here), ` +
      "with every reading ranked",
  );
  if (!browser) return;
  await trace("sixteen bars reharmonized and harmonized in the worker", longSong(16), "chords", {
    prepare: async (page) => {
      await page.locator("[data-chord]").first().waitFor();
      await page.waitForTimeout(2500);
      await page.locator("[data-chord]").nth(2).click();
    },
    act: async (page) => {
      // Clicked inside the page: looking for roles would itself keep its main thread busy.
      const hit = (selector: string, index: number) =>
        page.evaluate(
          ([s, i]) => document.querySelectorAll<HTMLElement>(s as string)[i as number]!.click(),
          [selector, index],
        );
      await hit(".tabs button", 2);
      await hit("#panel .controls button", 1);
      for (const value of ["0.1", "0.5", "0.9"]) {
        await page.evaluate((v) => {
          const slider = document.querySelector<HTMLInputElement>("#panel input[type=range]")!;
          Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!.set!.call(slider, v);
          slider.dispatchEvent(new Event("input", { bubbles: true }));
        }, value);
        await page.waitForTimeout(900);
      }
      await hit(".tabs button", 3);
      await hit("#panel button.primary", 0);
      await page.waitForTimeout(1500);
    },
  });
}
