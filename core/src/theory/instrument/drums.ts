/**
 * A drum a lane can hold: its name, its note in General MIDI (GM System Level 1, value from memory), and what it is
 * struck like.
 */
export interface DrumKind {
  title: string;
  note: number;
  /** Loudness of a fresh hit on a beat and between beats. */
  velocity: [onBeat: number, between: number];
}

const LOUD: [number, number] = [100, 100];
const SOFT: [number, number] = [76, 54];

/** All drums, from the lowest up: the order in which they are drawn from the foot of the lane. */
export const DRUM_KINDS = {
  kick: { title: "kick", note: 36, velocity: LOUD },
  snare: { title: "snare", note: 38, velocity: LOUD },
  rim: { title: "rim", note: 37, velocity: [84, 70] },
  clap: { title: "clap", note: 39, velocity: LOUD },
  tom: { title: "tom", note: 45, velocity: [92, 80] },
  conga: { title: "conga", note: 63, velocity: [84, 66] },
  clave: { title: "clave", note: 75, velocity: [84, 84] },
  tambourine: { title: "tambourine", note: 54, velocity: SOFT },
  triangle: { title: "triangle", note: 81, velocity: [64, 54] },
  shaker: { title: "shaker", note: 70, velocity: [70, 46] },
  pedalHat: { title: "pedal hat", note: 44, velocity: [66, 54] },
  closedHat: { title: "closed hat", note: 42, velocity: SOFT },
  openHat: { title: "open hat", note: 46, velocity: SOFT },
  ride: { title: "ride", note: 51, velocity: SOFT },
  free1: { title: "lane 1", note: 60, velocity: [84, 70] },
  free2: { title: "lane 2", note: 61, velocity: [84, 70] },
  free3: { title: "lane 3", note: 56, velocity: [84, 70] },
  free4: { title: "lane 4", note: 76, velocity: [84, 70] },
} as const satisfies Record<string, DrumKind>;

export type Drum = keyof typeof DRUM_KINDS;
export const DRUMS = Object.keys(DRUM_KINDS) as [Drum, ...Drum[]];

/** Hats that end an open hat. */
export const CLOSING: readonly Drum[] = ["closedHat", "pedalHat", "openHat"];

/** Drums with a pitch of their own: skins, and the free lanes that sound like them. */
export const TUNABLE: readonly Drum[] = ["kick", "tom", "conga", "free1", "free2"];
