import { sure } from "../../core/src/index";
import { press, release } from "../app/input/played";
import { startRecording, stopRecording, useRecord } from "../app/commands/record";
import { usePlayback } from "../app/store/playback";

/** A stand-in for the player: a playhead that is set by hand, and a switch that tells whether it plays. */
const sound = {
  tick: null as number | null,
  listeners: new Set<(now: { playing: boolean }, before: { playing: boolean }) => void>(),
};
jest.mock("../app/audio/sound", () => ({
  play: () => Promise.resolve(void (sound.tick = -1920)),
  playhead: () => sound.tick,
  stop: () => {
    sound.tick = null;
    for (const l of sound.listeners) l({ playing: false }, { playing: true });
  },
  useSound: {
    subscribe: (l: (now: { playing: boolean }, before: { playing: boolean }) => void) => {
      sound.listeners.add(l);
      return () => sound.listeners.delete(l);
    },
  },
}));

const at = (tick: number, act: () => void): void => {
  sound.tick = tick;
  act();
};

test(
  "keys are kept with the places of the playhead; what is still held ends with the stretch; loop and count-in " +
    "come back",
  async () => {
    usePlayback.setState({ loop: { on: true, from: 0, to: 1920 }, countIn: false });
    await startRecording("bass", 0, 1920, { countIn: true, click: true, over: true });
    expect([
      usePlayback.getState().silent,
      usePlayback.getState().countIn,
      useRecord.getState().phase,
      usePlayback.getState().click,
    ]).toEqual(["bass", true, "counting", true]);
    at(-40, () => press(36, 70));
    expect(useRecord.getState()).toMatchObject({ phase: "counting", part: "bass", live: [{ midi: 36 }] });
    at(430, () => release(36));
    at(500, () => press(43, 90));
    at(900, () => press(48, 60));
    // What is played is seen at once: what is held is as long as it lasts so far.
    expect(useRecord.getState()).toMatchObject({ phase: "recording", now: 900 });
    expect(useRecord.getState().live.map((n) => [n.midi, n.end])).toEqual([
      [36, 430],
      [43, 900],
      [48, 901],
    ]);
    at(1000, () => release(43));
    stopRecording();
    expect(useRecord.getState()).toMatchObject({
      phase: "off",
      live: [],
      recording: {
        from: 0,
        to: 1920,
        notes: [
          { midi: 36, velocity: 70, start: -40, end: 430 },
          { midi: 43, velocity: 90, start: 500, end: 1000 },
          { midi: 48, velocity: 60, start: 900, end: 1920 },
        ],
      },
    });
    expect([usePlayback.getState().silent, usePlayback.getState().countIn, usePlayback.getState().loop]).toEqual([
      null,
      false,
      { on: true, from: 0, to: 1920 },
    ]);
    // What is played afterwards is heard, not kept.
    at(1200, () => press(50));
    expect(sure(useRecord.getState().recording).notes).toHaveLength(3);
  },
);

test("a pass without a note leaves nothing, and one that adds keeps the part sounding", async () => {
  await startRecording("bass", 960, 1920, { countIn: false, click: false, over: false });
  expect([usePlayback.getState().silent, usePlayback.getState().loop]).toEqual([
    null,
    { on: false, from: 960, to: 1920 },
  ]);
  stopRecording();
  expect(useRecord.getState()).toMatchObject({ phase: "off", recording: null });
});
