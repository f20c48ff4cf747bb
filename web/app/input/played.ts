import { create } from "zustand";
import type { Midi } from "../../../core/src/index";

interface PlayedState {
  /** Keys that are down now. */
  held: Midi[];
  /**
   * The notes of the chord that is being played: all that were down since the hands last left the keys, and what was
   * touched on screen.
   */
  notes: Midi[];
  /** What plays: a MIDI keyboard by its name, or null. */
  device: string | null;
  deviceProblem: string | null;
  /**
   * What the keys on screen do: they only sound, a touch puts a note into the chord or takes it out, or they play like
   * any keyboard.
   */
  screenKeys: "sound" | "collect" | "play";
}

/** One path for every key: a MIDI keyboard, the keys of the computer and the keyboard on screen all end here. */
export const usePlayed = create<PlayedState>(() => ({
  held: [],
  notes: [],
  device: null,
  deviceProblem: null,
  screenKeys: "sound",
}));

const sorted = (list: Iterable<Midi>): Midi[] => [...new Set(list)].sort((a, b) => a - b);

const listeners = new Set<(midi: Midi, velocity: number) => void>();
/** Hears every note that is played in; returns a function that ends this. */
export function onPlayed(listener: (midi: Midi, velocity: number) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

const releases = new Set<(midi: Midi) => void>();
/** Hears every key that is let go; returns a function that ends this. */
export function onReleased(listener: (midi: Midi) => void): () => void {
  releases.add(listener);
  return () => releases.delete(listener);
}

export function press(midi: Midi, velocity = 80): void {
  const { held, notes } = usePlayed.getState();
  // Hands that come back to the keys begin a new chord.
  usePlayed.setState({ held: sorted([...held, midi]), notes: sorted(held.length ? [...notes, midi] : [midi]) });
  for (const listener of listeners) listener(midi, velocity);
}

export function release(midi: Midi): void {
  usePlayed.setState((s) => ({ held: s.held.filter((m) => m !== midi) }));
  for (const listener of releases) listener(midi);
}

/** A key touched on screen joins the chord, or leaves it when it was in it. */
export function pressKey(midi: Midi): void {
  const { notes } = usePlayed.getState();
  const on = !notes.includes(midi);
  usePlayed.setState({ notes: sorted(on ? [...notes, midi] : notes.filter((m) => m !== midi)) });
  if (on) for (const listener of listeners) listener(midi, 80);
}

export const clearPlayed = (): void => usePlayed.setState({ held: [], notes: [] });

/** Two rows of the computer's keyboard as piano keys from C, by the places of the keys, so that every layout works. */
const ROW = [
  "KeyA",
  "KeyW",
  "KeyS",
  "KeyE",
  "KeyD",
  "KeyF",
  "KeyT",
  "KeyG",
  "KeyY",
  "KeyH",
  "KeyU",
  "KeyJ",
  "KeyK",
  "KeyO",
  "KeyL",
  "KeyP",
  "Semicolon",
];

/** Lets the computer's keys play while it lasts; Z and X move an octave. Returns a function that ends it. */
export function startComputerKeys(from: Midi = 48): () => void {
  let base = from;
  const down = new Map<string, Midi>();
  const typing = (e: KeyboardEvent) => /^(INPUT|TEXTAREA|SELECT)$/.test((e.target as HTMLElement).tagName);
  const onDown = (e: KeyboardEvent) => {
    if (typing(e) || e.ctrlKey || e.metaKey || e.altKey) return;
    const index = ROW.indexOf(e.code);
    if (index < 0 && e.code !== "KeyZ" && e.code !== "KeyX") return;
    e.preventDefault();
    e.stopPropagation();
    if (e.repeat) return;
    if (index < 0) {
      base = Math.min(84, Math.max(24, base + (e.code === "KeyX" ? 12 : -12)));
      return;
    }
    down.set(e.code, base + index);
    press(base + index);
  };
  const onUp = (e: KeyboardEvent) => {
    const midi = down.get(e.code);
    if (midi === undefined) return;
    down.delete(e.code);
    release(midi);
  };
  window.addEventListener("keydown", onDown, true);
  window.addEventListener("keyup", onUp, true);
  return () => {
    window.removeEventListener("keydown", onDown, true);
    window.removeEventListener("keyup", onUp, true);
    for (const midi of down.values()) release(midi);
  };
}

/**
 * What arrives from a MIDI keyboard: note on (a velocity of 0 is a note off) and note off; anything else is passed
 * over.
 */
export function midiMessage(data: ArrayLike<number>): void {
  const [status = 0, note = 0, velocity = 0] = Array.from(data);
  const kind = status & 0xf0;
  if (kind === 0x90 && velocity > 0) press(note, velocity);
  else if (kind === 0x80 || kind === 0x90) release(note);
}

/** Listens to the MIDI keyboards the browser offers. */
export async function startMidi(): Promise<void> {
  if (!("requestMIDIAccess" in navigator)) {
    usePlayed.setState({
      deviceProblem: "This browser offers no MIDI; the keys on screen and of the computer work the same way.",
    });
    return;
  }
  try {
    const access = await navigator.requestMIDIAccess();
    const listen = () => {
      const inputs = [...access.inputs.values()];
      for (const input of inputs) input.onmidimessage = (e) => e.data && midiMessage(e.data);
      usePlayed.setState({
        device: inputs.map((i) => i.name ?? "MIDI keyboard").join(", ") || null,
        deviceProblem: inputs.length ? null : "No MIDI keyboard is connected.",
      });
    };
    access.onstatechange = listen;
    listen();
  } catch {
    usePlayed.setState({ deviceProblem: "The browser did not allow MIDI." });
  }
}
