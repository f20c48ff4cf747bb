import type { Key } from "../pitch/key";
import type { Meter, Ticks } from "../time/meter";
import type { Edit } from "../song/edit";
import type { Part, Profile, Section, Song } from "../song/schema";
import type { Sliced } from "../slice/slices";

export type Severity = "fault" | "warning" | "note";

/** A way out of a finding: heard, taken and undone as one edit. */
export interface Fix {
  label: string;
  edit: Edit;
}

export interface Finding {
  /** Rule and note ids: stays the same while the notes do. */
  id: string;
  rule: string;
  severity: Severity;
  where: { section: string; tick: Ticks; duration: Ticks; parts: string[]; notes: string[] };
  message: string;
  /** How much, in words: "½ beat", "4 semitones". */
  measure: string;
  source: string;
  fixes: Fix[];
  /** Why the user lets it stand, when waived. */
  waived?: string;
}

export type RawFinding = Pick<Finding, "message" | "measure" | "fixes"> & {
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
  sliced: Sliced;
}

/** A check: one file each in rules/. */
export interface Rule {
  id: string;
  title: string;
  /** One paragraph, shown in the interface. */
  explanation: string;
  source: string;
  scope: "slice" | "step" | "phrase" | "section" | "form";
  /** Roles of the parts whose notes it reads; "groove" for the drums. */
  reads: (Part["role"] | "groove")[];
  severity: Record<Profile, Severity | "off">;
  find(ctx: CheckContext): RawFinding[];
}
