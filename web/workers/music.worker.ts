import { expose } from "comlink";
import {
  accentMap,
  adaptBass,
  agreeOnAccents,
  analyzeSection,
  applyEdit,
  blockNotes,
  chooseCapo,
  createChecker,
  fail,
  judgeProgression,
  ok,
  partByRole,
  reharmonizeSection,
  judgeBass,
  gates,
  thinOut,
  buildUp,
  sectionPaths,
  storeVoicing,
  voiceSection,
  weavePlan,
  tryHarmonize,
  tryReharmonize,
  tryWriteBass,
  type AccentMap,
  type Agreement,
  type BassLine,
  type BassVerdict,
  type ShapeStep,
  type BassRequest,
  type CapoChoice,
  type Edit,
  type Finding,
  type Harmonization,
  type HarmonizeRequest,
  type HarmonyReport,
  type Note,
  type Progressed,
  type ReharmCandidate,
  type ReharmRequest,
  type SectionPath,
  type SectionRequest,
  type Verdict,
  type Result,
  type SectionVoicing,
  type Song,
  type Ticks,
  type WeavePlace,
} from "../../core/src/index";

/** Keeps the song by version and follows it by edits, so that a whole song crosses the border only when it is opened or undone. */
let song: Song | null = null;
let version = 0;
const checker = createChecker();
// Judges what is only tried out (a drag, a preview), without displacing what is remembered of the song itself.
const trial = createChecker();

export interface Analysis {
  findings: Finding[];
  report: BassVerdict | null;
  harmony: HarmonyReport | null;
  verdict: Verdict | null;
  /** Changes only when harmony and verdict do. */
  harmonyId: number;
}

export interface AccentView {
  map: AccentMap;
  /** Null where nobody rubs. */
  agreed: Agreement | null;
  plan: WeavePlace[];
}

/** The harmony of a section is worked out anew only when its chords, its lines or its key change. */
export type ShownOffer = Omit<ReharmCandidate, "events">;

type Harmony = Pick<Analysis, "harmony" | "verdict" | "harmonyId">;
let harmony: { song: Song; section: string; result: Harmony } | null = null;
let harmonies = 0;
function harmonyOf(of: Song, section: string): Harmony {
  const same =
    harmony?.section === section &&
    harmony.song.key === of.key &&
    harmony.song.meter === of.meter &&
    harmony.song.parts === of.parts &&
    (["chords", "notes", "key", "bars"] as const).every((f) => {
      const [a, b] = [harmony!.song, of].map((x) => x.sections.find((y) => y.id === section)?.[f]);
      return a === b;
    });
  if (!same)
    harmony = {
      song: of,
      section,
      result: { harmony: analyzeSection(of, section), verdict: judgeProgression(of, section), harmonyId: ++harmonies },
    };
  return harmony!.result;
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
  analyze(section: string, bassPart: string, tried?: Edit): Analysis {
    if (!song) return { findings: [], report: null, harmony: null, verdict: null, harmonyId: 0 };
    const changed = tried ? applyEdit(song, tried) : null;
    const judged = changed?.ok ? changed.value.song : song;
    const by = changed?.ok ? trial : checker;
    const bass = judged.parts.find((p) => p.id === bassPart) ?? partByRole(judged, "bass");
    const report = bass && judgeBass(judged, { section, part: bass.id, sliced: by.sliced(judged, section) });
    return { findings: by.section(judged, section), report: report?.ok ? report.value : null, ...harmonyOf(song, section) };
  },
  /** Who strikes where in a section, what those who rub could agree on, and where a bass would weave. */
  accents(section: string, part: string): AccentView | null {
    const map = song && accentMap(song, section);
    if (!song || !map?.ok) return null;
    const agreed = agreeOnAccents(song, section);
    const found = song.parts.find((p) => p.id === part);
    const here = song.sections.find((s) => s.id === section)!;
    return {
      map: map.value,
      agreed: agreed.ok ? agreed.value : null,
      plan: found ? weavePlan({ song, section: here, part: found, meter: map.value.meter }) : [],
    };
  },
  voice: (section: string, part: string): Result<SectionVoicing> =>
    song ? voiceSection(song, section, part) : fail("song.none", "No song is open"),
  block: (section: string, part: string): Result<Omit<Note, "id">[] | null> =>
    song ? blockNotes(song, section, part) : fail("song.none", "No song is open"),
  paths: (section: string, part: string): Result<SectionPath[]> =>
    song ? sectionPaths(song, section, part) : fail("song.none", "No song is open"),
  capo: (part: string): Result<CapoChoice[]> => (song ? chooseCapo(song, part) : fail("song.none", "No song is open")),
  /** Only what is shown crosses the border: the first offers, without the chords they leave alone. */
  reharmonize(request: Omit<ReharmRequest, "song">): Result<ShownOffer[]> {
    if (!song) return fail("song.none", "No song is open");
    const found = tryReharmonize({ song, ...request });
    return found.ok ? ok(found.value.slice(0, 9).map(({ events: _, ...shown }) => shown)) : found;
  },
  reharmonizeSection: (request: Omit<SectionRequest, "song">): Result<Progressed[]> =>
    song ? reharmonizeSection({ song, ...request }) : fail("song.none", "No song is open"),
  harmonize: (request: Omit<HarmonizeRequest, "song">, as: "melody" | "bass"): Result<Harmonization[]> =>
    song ? tryHarmonize({ song, ...request }, as) : fail("song.none", "No song is open"),
  /** An edit of chords with what belongs to it: the bass that follows (when wanted) and the voicings. */
  dress(edit: Edit, section: string, from: Ticks, to: Ticks, bassFollows: boolean): Result<Edit> {
    if (!song) return fail("song.none", "No song is open");
    const edits: Edit[] = [edit];
    let current = applyEdit(song, edit);
    if (!current.ok) return current;
    for (const bass of bassFollows ? song.parts.filter((p) => p.role === "bass" && !p.link) : []) {
      const moved = adaptBass(song, current.value.song, section, bass.id, from, to);
      if (!moved) continue;
      edits.push(moved);
      current = applyEdit(current.value.song, moved);
      if (!current.ok) return current;
    }
    for (const part of song.parts.filter((p) => p.link?.kind === "voicing" && !p.link.from)) {
      const voiced = voiceSection(current.value.song, section, part.id);
      if (voiced.ok) edits.push(storeVoicing(section, part.id, voiced.value));
    }
    return ok({ do: "all", label: "chords", edits });
  },
  gates: (request: BassRequest) => (song ? gates(song, request) : fail("song.none", "No song is open")),
  /** Takes the least justified note away, or adds the best justified one. */
  shape: (request: BassRequest, way: "thin" | "build"): Result<ShapeStep> =>
    song ? (way === "thin" ? thinOut : buildUp)(song, request) : fail("song.none", "No song is open"),
  bass: (request: BassRequest): Result<BassLine[]> => (song ? tryWriteBass(song, request) : fail("song.none", "No song is open")),
};

export type MusicWorker = typeof musicWorker;
expose(musicWorker);
