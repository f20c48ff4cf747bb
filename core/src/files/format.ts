import type { Result } from "../base/result";
import type { Opened } from "../song/document";
import type { Song } from "../song/schema";

/** One way of writing a song in a format: most have one. */
export interface WayOut {
  id: string;
  /** On its button. */
  title: string;
  /** The whole file. */
  write(song: Song): Uint8Array;
}

/** A file format: whatever chooses, drops, offers or checks files reads this list. */
export interface Format {
  id: string;
  title: string;
  /** What it keeps and what it leaves out; one paragraph, shown beside its buttons. */
  explanation: string;
  /** Endings of its files without the dot, the usual one first. */
  extensions: readonly string[];
  /** Media type (IANA). */
  media: string;
  /**
   * A file as a song of its own, and what was mended in it; errors are told by what is wrong in it. Absent where it is
   * only written.
   */
  read?(bytes: Uint8Array, name: string): Result<Opened>;
  /** Empty where it is only read. */
  ways: readonly WayOut[];
}
