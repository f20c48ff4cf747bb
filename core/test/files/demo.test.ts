import { firstOf, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { checkSong } from "../../src/judge/check/check";
import { describeReason, REASONS } from "../../src/song/reasons";
import { must } from "../../src/base/result";
import { reportBass } from "../../src/write/bass/write";
import { sliceSong } from "../../src/hear/slice/slices";
import { spoken } from "../../src/theory/pitch/pitch";
import { demoSongs } from "../../../demo/songs";

describe("the demo is sound music", () => {
  test(
    "no finding above a note, all accents met, every bass note with a reason, every melody note in the chord, a " +
      "tension or named",
    () => {
      for (const song of demoSongs()) {
        expect(
          checkSong(song)
            .filter((f) => f.severity !== "note")
            .map((f) => f.message),
        ).toEqual([]);
        for (const section of song.sections) {
          const data = sliceSong(song, { section: section.id });
          const report = must(reportBass(song, { section: section.id, part: "bass" }));
          expect([report.accentsMet, report.withoutReason]).toEqual([report.accents, 0]);
          for (const spans of sure(data.roles.get("melody")).values())
            for (const span of spans) expect([spoken(section.name), span.kind]).not.toContain("outside");
          for (const slice of data.slices)
            for (const note of slice.notes) if (note.part === "keys") expect(note.span.kind).toBe("chord");
        }
      }
    },
  );
  test("reasons are words", () => {
    for (const id of Object.keys(REASONS))
      expect(
        describeReason({ id, params: { pitch: "Eb", chord: "Ebmaj7", role: "b3", target: "C", interval: "semitone" } }),
      ).not.toMatch(/[{}]/);
    expect(applyEdit(firstOf(demoSongs()), { do: "setTempo", tempo: 80 }).ok).toBe(true);
  });
});
