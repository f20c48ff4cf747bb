import type { Key } from "../../theory/pitch/key";
import type { Meter, Ticks } from "../../theory/time/meter";
import type { Edit } from "../../song/edits";
import type { Profile, Section, Song } from "../../song/schema";
import type { AccentMap } from "../../hear/accents/accentMap";
import type { Agreement } from "../../arrange/groove/agree";
import type { RealizedNote, RealizedSong } from "../../song/realize";
import type { PairPlaces } from "../../hear/line/between";
import type { Voice } from "../../hear/voice/voices";
import type { Sliced } from "../../hear/slice/slices";

export type Severity = "fault" | "warning" | "note";

/** What a check looks at. */
export const FAMILIES = {
  voices: "Voices",
  range: "Range",
  vertical: "Sounding together",
  room: "Room",
  groove: "Groove",
  form: "Form",
  handover: "Handing over",
  reason: "Reasons",
} as const;
export type Family = keyof typeof FAMILIES;

/** A way out of a finding: heard, taken and undone as one edit. */
export interface Fix {
  label: string;
  edit: Edit;
}

/** One place at which a fault stands. */
export interface FindingPlace {
  /** Rule, section, parts and what it is about here: stays the same while the matter does. */
  id: string;
  tick: Ticks;
  duration: Ticks;
  parts: string[];
  notes: string[];
  message: string;
  /** How much, in words: "½ beat", "4 semitones". */
  amount: string;
  fixes: Fix[];
}

/** The same fault of one part or pair, with all its places in a section. */
export interface Finding {
  /** That of its place where it has one alone; otherwise rule, section and parts. */
  id: string;
  rule: string;
  family: Family;
  severity: Severity;
  /** The first place; `notes` are those of all. */
  where: { section: string; tick: Ticks; duration: Ticks; parts: string[]; notes: string[] };
  /** In order of time. */
  places: FindingPlace[];
  /** Of the first place. */
  message: string;
  /** Of the place where there is one, otherwise how many there are. */
  amount: string;
  source: string;
  /** Of the first place, and those for all. */
  fixes: Fix[];
  /** What mends all places at once, where there are several and each can be mended. */
  forAll: Fix[];
  /** How much a listener notices it: findings of one severity stand in this order. */
  weight: number;
  /** It happens at nearly all of its chances, so many: taken as meant; with how grave it would be otherwise. */
  habit?: { times: number; chances: number; otherwise: Severity };
  /** Why the user lets it stand, and the waiver that says so. */
  waived?: string;
  waiver?: string;
}

/** What a rule finds at one place. */
export type RawFinding = Pick<FindingPlace, "message" | "amount" | "fixes" | "tick" | "parts" | "notes"> & {
  duration?: Ticks;
  /** The pass whose notes these are, where it is about one pass alone. */
  pass?: string;
  /** How often these parts had the chance to do it in the section: what happens nearly always is a habit. */
  chances?: number;
  /** What mends every place of these parts, where that is simpler than each by itself. */
  whole?: Fix | undefined;
  /** By how many degrees it weighs less than its rule says: a voice inside a chord is no line of its own. */
  lighter?: number | undefined;
};

/** A voice that is judged: a line, or a thread inside a part that sounds several notes at once. */
export interface Line extends Voice {
  /** By how many degrees what is found in it weighs less than in a line. */
  lighter: number;
}

export interface CheckContext {
  /** The rule that looks. */
  rule: string;
  song: Song;
  section: Section;
  /** Nobody asks for ways out: none are weighed. */
  bare: boolean;
  meter: Meter;
  key: Key;
  /**
   * What ways out rest on besides what sounds: players, singers, school, key. The same object while it says the same.
   */
  ground(): object;
  /** Slices of the section: chopped and arpeggiated parts as the chords they come from. */
  sliced: Sliced;
  /** The voices of a part, from the top: one of a line, several of what sounds several notes at once. */
  threads(part: string): readonly (readonly RealizedNote[])[];
  /** How two voices go together, told from the first of them; and whether they are one in two sounds. */
  pair(a: Voice, b: Voice): PairPlaces;
  areOne(a: Voice, b: Voice): boolean;
  /** Notes of a part as they are played: chopped, strummed, arpeggiated. */
  played(part: string): readonly RealizedNote[];
  /**
   * Who strikes where in the bar, and what players whose accents miss each other could agree on; null where there is
   * nothing.
   */
  accents(): AccentMap | null;
  agreement(): Agreement | null;
  /** A pass of the form realized alone, from tick 0; another section likewise. */
  pass(id: string): RealizedSong;
  other(section: string): RealizedSong;
}

/**
 * A check: one file each in rules/. It declares nothing of what it reads: that is recorded, and it runs again when any
 * of it changes.
 */
export interface Rule {
  id: string;
  title: string;
  family: Family;
  /** One paragraph, shown in the interface. */
  explanation: string;
  source: string;
  severity: Record<Profile, Severity | "off">;
  /** How plainly it is heard against others of its length and loudness; 1 where it is absent (common practice). */
  heard?: number;
  find(ctx: CheckContext): RawFinding[];
}
