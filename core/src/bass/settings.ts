import type { PitchName } from "../pitch/pitch";
import type { Part } from "../song/schema";

/** How a bass line is played, in plain terms. Every style has its own usual values. */
export interface BassSettings {
  /** 0 only what must sound, 1 every place the style knows. */
  density: number;
  /** Length of a note: cut short, as the style has it, or up to the next note. */
  length: "short" | "usual" | "long";
  /** What happens before a snare or clap: the note ends there, or rings on. */
  gate: "cut" | "ring";
  /** Silence on purpose in the last beat of every figure. */
  rests: boolean;
  /** Most different pitches (octaves not counted) in a figure of one or two bars. */
  pitches: number;
  octaves: "none" | "some" | "many";
  slides: "none" | "some" | "many";
  /** Which kicks the line must meet. */
  lock: "chords" | "main" | "every";
  /** Colour that is liked beside the root, by quality of the chord (common practice: the fifth over major, the third over minor). */
  overMajor: "fifth" | "third" | "either";
  overMinor: "fifth" | "third" | "either";
  /** Move in the gaps of a tune, hold under its motion, keep out of its octave. */
  melody: boolean;
  /** A rhythm figure that the other sections do not have. */
  ownFigure: boolean;
  /** How much every fourth bar departs from the figure, 0–1. */
  variation: number;
  /** The last bar ends differently. */
  turn: boolean;
  /** Lowest and highest note; the part's range where it is empty. */
  low: PitchName | "";
  high: PitchName | "";
}

export const USUAL_SETTINGS: BassSettings = {
  density: 0.5,
  length: "usual",
  gate: "ring",
  rests: false,
  pitches: 4,
  octaves: "some",
  slides: "none",
  lock: "main",
  overMajor: "fifth",
  overMinor: "third",
  melody: true,
  ownFigure: false,
  variation: 0.3,
  turn: true,
  low: "",
  high: "",
};

type Name = keyof BassSettings;
const NAMES = Object.keys(USUAL_SETTINGS) as Name[];

/** The name a setting of one section is stored under in its part. */
export const settingName = (name: Name | "style", section: string): string => `${name}@${section}`;

const CHOICES: { [K in Name]?: readonly BassSettings[K][] } = {
  length: ["short", "usual", "long"],
  gate: ["cut", "ring"],
  octaves: ["none", "some", "many"],
  slides: ["none", "some", "many"],
  lock: ["chords", "main", "every"],
  overMajor: ["fifth", "third", "either"],
  overMinor: ["fifth", "third", "either"],
};

/**
 * Settings of a part in a section: what was set for the section, else for the part, else what is usual for the style. A stored value that is
 * none of a setting's is passed over.
 */
export function settingsOf(part: Part, section: string, usual: Partial<BassSettings> = {}): BassSettings {
  const out: BassSettings = { ...USUAL_SETTINGS, ...usual };
  // Songs of before kept a single check mark for slides.
  if (part.settings.glides === true) out.slides = "some";
  else if (part.settings.glides === false) out.slides = "none";
  for (const name of NAMES) {
    const stored = part.settings[settingName(name, section)] ?? part.settings[name];
    if (stored === undefined || typeof stored !== typeof out[name]) continue;
    if (CHOICES[name] && !(CHOICES[name] as readonly unknown[]).includes(stored)) continue;
    Object.assign(out, { [name]: stored });
  }
  out.density = Math.min(1, Math.max(0, out.density));
  out.pitches = Math.min(7, Math.max(1, Math.round(out.pitches)));
  return out;
}

/** The style of a part in a section; undefined where none was chosen. */
export function styleOf(part: Part, section: string): string | undefined {
  const stored = part.settings[settingName("style", section)] ?? part.settings.style;
  return typeof stored === "string" ? stored : undefined;
}
