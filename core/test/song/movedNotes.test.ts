import { firstOf, sure } from "../../src/base/list";
import type { Edit } from "../../src/song/edits";
import { edit, songWith } from "../helpers";

const song = edit(songWith({ line: "| C | F |", bass: ["0 C2 4", "4 F2 4"] }), {
  do: "setNotes",
  section: "s1",
  part: "bass",
  notes: [
    {
      start: 0,
      duration: 960,
      pitch: "C2",
      velocity: 90,
      slide: { kind: "glide", to: "E2" },
      reason: { id: "root", params: {} },
    },
    { start: 1920, duration: 960, pitch: "F2", velocity: 90 },
  ],
} as Edit);
const note = (after: typeof song) => sure(firstOf(after.sections).notes.bass?.find((n) => n.velocity !== 1));
const first = sure(firstOf(song.sections).notes.bass?.[0]);
const changed = (change: Record<string, unknown>) => {
  const after = edit(song, {
    do: "changeNotes",
    section: "s1",
    part: "bass",
    notes: [{ id: first.id, ...change }],
  } as Edit);
  const now = sure(firstOf(after.sections).notes.bass?.find((n) => n.id === first.id));
  return [now.slide?.to ?? null, now.reason?.id ?? null];
};

test("a note that goes elsewhere loses its slide and its reason; one that only sounds otherwise keeps both", () => {
  expect(note(song).slide?.to).toBe("E2");
  expect(changed({ pitch: "D2" })).toEqual([null, null]);
  expect(changed({ start: 480 })).toEqual([null, null]);
  expect(changed({ velocity: 70 })).toEqual(["E2", "root"]);
  expect(changed({ duration: 480 })).toEqual(["E2", "root"]);
  expect(changed({ pitch: "C2" })).toEqual(["E2", "root"]);
});
