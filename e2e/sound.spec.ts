import { expect, rendered, test } from "./fixtures";
import { firstOf, nth, Pitch, type RealizedSong, Song, sure } from "./orchard";

/** Energy of a frequency in a stretch of samples (Goertzel), by sample. */
function energy(
  samples: number[],
  rate: number,
  from: number,
  { to, frequency }: { to: number; frequency: number },
): number {
  const a = Math.max(0, Math.floor(from * rate));
  const b = Math.min(samples.length, Math.floor(to * rate));
  const k = 2 * Math.cos((2 * Math.PI * frequency) / rate);
  let s1 = 0;
  let s2 = 0;
  for (let i = a; i < b; i++) {
    const window = Math.sin((Math.PI * (i - a)) / (b - a)) ** 2;
    const s = nth(samples, i) * window + k * s1 - s2;
    s2 = s1;
    s1 = s;
  }
  return (s1 * s1 + s2 * s2 - k * s1 * s2) / (b - a) ** 2;
}

const loudness = (samples: number[], rate: number, from: number, to: number): number => {
  const part = samples.slice(Math.max(0, Math.floor(from * rate)), Math.floor(to * rate));
  return part.length ? Math.sqrt(part.reduce((sum, x) => sum + x * x, 0) / part.length) : 0;
};

/** The demo groove with swing, plus offsets and glides: what is heard is what is written. */
function changed(song: Song): Song {
  const section = firstOf(song.sections);
  const bass = sure(section.notes.bass).map((n, i) =>
    i % 5 === 2 && n.start > 0
      ? { ...n, offset: 40, duration: Math.min(n.duration, 240) }
      : { ...n, duration: Math.min(n.duration, 360) },
  );
  return { ...song, sections: [{ ...section, notes: { ...section.notes, bass } }] };
}

test("the demo rendered offline: notes at their times and pitches, silence where there is none", async ({
  page,
  request,
}) => {
  test.setTimeout(240_000);
  const original = (await (await request.get("/api/songs/cider-press-strut")).json()) as Song;
  const made = await request.post("/api/songs", { data: changed(original) });
  const song = (await made.json()) as Song;
  await page.goto(`/songs/${song.id}/chords`);
  await expect(page.locator("[data-chord]").first()).toBeVisible();
  const real: RealizedSong = Song.realize(song, { section: "s1" });
  const at = (tick: number) => Song.secondsAt(real, tick);
  // Four bars say as much as eight.
  const to = 4 * 1920;
  for (const part of ["bass", "melody"]) {
    const { samples, rate } = await rendered(page, { section: "s1", solo: [part], to });
    const notes = sure(real.parts.find((p) => p.id === part)).notes.filter((n) => n.start + n.duration < to);
    const swungNotes = notes.filter((n) => n.played !== n.start);
    if (part === "bass") expect(swungNotes.length).toBeGreaterThan(5);
    let loudest = 0;
    for (const note of notes) loudest = Math.max(loudest, loudness(samples, rate, at(note.played), at(note.playedEnd)));
    expect(loudest).toBeGreaterThan(0.01);
    notes.forEach((note, i) => {
      const from = at(note.played);
      const to = Math.min(at(note.playedEnd), from + 0.3);
      const place = `${part} ${note.pitch} at tick ${note.start}`;
      // Its pitch is louder than the semitones and tones beside it.
      const own = energy(samples, rate, from + 0.01, { to, frequency: Pitch.frequency(note.midi) });
      for (const d of [-2, 2])
        expect(own, `${place} against ${d}`).toBeGreaterThan(
          energy(samples, rate, from + 0.01, { to, frequency: Pitch.frequency(note.midi + d) }) * 1.5,
        );
      // Before it there is silence when the note before has ended (and rung out), and it begins within 15 ms of its
      // time.
      const before = notes[i - 1];
      const quietFrom = (before ? at(before.playedEnd) : 0) + 0.12;
      if (from - quietFrom > 0.03) {
        expect(loudness(samples, rate, quietFrom, from - 0.005), `silence before ${place}`).toBeLessThan(
          loudest * 0.02,
        );
        expect(loudness(samples, rate, from, from + 0.03), `beginning of ${place}`).toBeGreaterThan(loudest * 0.05);
      }
    });
  }
  // Kicks: energy low down at every played hit.
  const { samples, rate } = await rendered(page, { section: "s1", solo: ["drums"], to });
  for (const hit of real.hits.filter((h) => h.drum === "kick" && h.start < to)) {
    const time = at(hit.played);
    expect(energy(samples, rate, time, { to: time + 0.06, frequency: 60 }), `kick at ${hit.start}`).toBeGreaterThan(
      energy(samples, rate, time - 0.07, { to: time - 0.005, frequency: 60 }) * 4,
    );
  }
  // The sampled piano sounds as well.
  const ballad = (await (await request.get("/api/songs/lanterns-on-row-nine")).json()) as Song;
  await page.goto("/songs/lanterns-on-row-nine/chords");
  await expect(page.locator("[data-chord]").first()).toBeVisible();
  const piano = await rendered(page, { section: "s1", solo: ["keys"], to: 7680 });
  const realBallad = Song.realize(ballad, { section: "s1" });
  for (const note of sure(realBallad.parts.find((p) => p.id === "keys")).notes.filter((n) => n.start < 7680)) {
    const from = Song.secondsAt(realBallad, note.played);
    expect(
      energy(piano.samples, piano.rate, from, { to: from + 0.5, frequency: Pitch.frequency(note.midi) }),
      `piano ${note.pitch} at ${note.start}`,
    ).toBeGreaterThan(1e-9);
  }
});
