import type { Key } from "../pitch/key";
import type { Meter, Ticks } from "../time/meter";
import type { Edit } from "../song/edits";
import type { Profile, Section, Song } from "../song/schema";
import type { Sliced } from "../slice/slices";

export type Severity = "fault" | "warning" | "note";

/** A way out of a finding: heard, taken and undone as one edit. */
export interface Fix {
  label: string;
  edit: Edit;
}

export interface Finding {
  /** Rule, section, parts and what it is about: stays the same while the matter does. */
  id: string;
  rule: string;
  severity: Severity;
  where: { section: string; tick: Ticks; duration: Ticks; parts: string[]; notes: string[] };
  message: string;
  /** How much, in words: "½ beat", "4 semitones". */
  amount: string;
  source: string;
  fixes: Fix[];
  /** Why the user lets it stand, and the waiver that says so. */
  waived?: string;
  waiver?: string;
}

export type RawFinding = Pick<Finding, "message" | "amount" | "fixes"> & {
  tick: Ticks;
  duration?: Ticks;
  parts: string[];
  notes: string[];
};

export interface CheckContext {
  song: Song;
  section: Section;
  meter: Meter;
  key: Key;
  /** Slices of the section: chopped and arpeggiated parts as the chords they come from. */
  sliced: Sliced;
}

/** A check: one file each in rules/. It declares nothing of what it reads: that is recorded, and it runs again when any of it changes. */
export interface Rule {
  id: string;
  title: string;
  /** One paragraph, shown in the interface. */
  explanation: string;
  source: string;
  severity: Record<Profile, Severity | "off">;
  find(ctx: CheckContext): RawFinding[];
}
