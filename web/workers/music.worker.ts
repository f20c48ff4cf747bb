import { expose } from "comlink";
import {
  applyEdit,
  createChecker,
  fail,
  partByRole,
  reportBass,
  voiceSection,
  tryWriteBass,
  type BassLine,
  type BassReport,
  type BassRequest,
  type Edit,
  type Finding,
  type Result,
  type SectionVoicing,
  type Song,
} from "../../core/src/index";

/** Keeps the song by version and follows it by edits, so that a whole song crosses the border only when it is opened or undone. */
let song: Song | null = null;
let version = 0;
const checker = createChecker();
// Judges what is only tried out (a drag, a preview), without displacing what is remembered of the song itself.
const trial = createChecker();

export interface Analysis {
  findings: Finding[];
  report: BassReport | null;
}

const musicWorker = {
  load(next: number, document: Song): void {
    song = document;
    version = next;
  },
  /** False when the worker does not hold the version before: then the song must be loaded. */
  edit(next: number, change: Edit): boolean {
    if (!song || version !== next - 1) return false;
    const result = applyEdit(song, change);
    if (!result.ok) return false;
    song = result.value.song;
    version = next;
    return true;
  },
  /** Findings and bass report of a section; with `tried`, as if that edit had been made. */
  analyze(section: string, tried?: Edit): Analysis {
    if (!song) return { findings: [], report: null };
    const changed = tried ? applyEdit(song, tried) : null;
    const judged = changed?.ok ? changed.value.song : song;
    const by = changed?.ok ? trial : checker;
    const bass = partByRole(judged, "bass");
    const report = bass && reportBass(judged, { section, part: bass.id, sliced: by.sliced(judged, section) });
    return { findings: by.section(judged, section), report: report?.ok ? report.value : null };
  },
  voice: (section: string, part: string): Result<SectionVoicing> =>
    song ? voiceSection(song, section, part) : fail("song.none", "No song is open"),
  bass: (request: BassRequest): Result<BassLine[]> => (song ? tryWriteBass(song, request) : fail("song.none", "No song is open")),
};

export type MusicWorker = typeof musicWorker;
expose(musicWorker);
