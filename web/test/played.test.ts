import { clearPlayed, midiMessage, onPlayed, press, release, pressKey, usePlayed } from "../app/input/played";

const notes = () => usePlayed.getState().notes;

beforeEach(clearPlayed);

test("keys held together make one chord; hands that come back begin another", () => {
  press(60);
  press(67);
  press(64);
  release(60);
  press(71);
  expect(notes()).toEqual([60, 64, 67, 71]);
  for (const key of [64, 67, 71]) release(key);
  expect([notes(), usePlayed.getState().held]).toEqual([[60, 64, 67, 71], []]);
  press(62);
  expect(notes()).toEqual([62]);
});

test("keys on screen join the chord or leave it", () => {
  pressKey(48);
  pressKey(52);
  pressKey(48);
  expect(notes()).toEqual([52]);
});

test("MIDI messages: on, off, on with velocity 0 as off (MIDI 1.0); anything else is passed over", () => {
  const heard: [number, number][] = [];
  const end = onPlayed((midi, velocity) => heard.push([midi, velocity]));
  for (const message of [[0x90, 60, 90], [0x93, 64, 70], [0xb0, 64, 127], [0xf8], [0x90, 60, 0], [0x83, 64, 0], []])
    midiMessage(message);
  end();
  midiMessage([0x90, 65, 90]);
  expect(heard).toEqual([
    [60, 90],
    [64, 70],
  ]);
  expect([notes(), usePlayed.getState().held]).toEqual([[65], [65]]);
});
