/** What the server says of songs, and the application reads. */
import type { Problem } from "../core/src/index";

/** What the list says of a song's music. */
export interface Contents {
  key: string;
  tempo: number;
  meter: string;
  bars: number;
  sections: number;
}

export interface SongSummary {
  id: string;
  title: string;
  revision: number;
  updatedAt: number;
  /** Null where the stored document cannot be read; then `problem` says why. */
  contents: Contents | null;
  problem: Problem | null;
}

export interface RevisionInfo {
  revision: number;
  name: string | null;
  createdAt: number;
}
