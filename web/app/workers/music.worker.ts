import { expose } from "comlink";
import {
  type AccentMap,
  type Agreement,
  type Anew,
  Bass,
  type BassLine,
  type BassRequest,
  type BassVerdict,
  type CapoChoice,
  Check,
  Counter,
  type CounterLine,
  type CounterRequest,
  Edit,
  Fact,
  fail,
  type Finding,
  Form,
  Frets,
  type Gate,
  type Harmonization,
  type HarmonizeRequest,
  type HarmonyReport,
  type NeckKey,
  ok,
  type Overview,
  type Progressed,
  Reharm,
  type ReharmCandidate,
  type ReharmRequest,
  type Result,
  type SafeFixes,
  type SafeProgress,
  type SectionPath,
  type SectionRequest,
  type SectionVoicing,
  type ShapeStep,
  type Steps,
  Singer,
  Song,
  type SungKey,
  sure,
  type Syllable,
  type Verdict,
  Vocal,
  type VocalLines,
  type VocalRequest,
  Voicing,
  type WeavePlace,
  type WordBook,
} from "../../../core/src/index";
import { linesOf, wordBook, type Language } from "./wordBook";

/**
 * Keeps the song by version and follows it by edits, so that a whole song crosses the border only when it is opened or
 * undone.
 */
let song: Song | null = null;
let version = 0;
/**
 * The last song that had all that belongs to it; null for one that came as a whole: its layouts stay as they are
 * stored.
 */
let settled: Song | null = null;
/** What followed from the song as it is now, as it was answered; null where nothing did. */
let proposed: Edit | null = null;
const memory = Fact.memory();
const checker = Check.checker(memory);
// Judges what is only tried out (a drag, a preview), without displacing what is remembered of the song itself.
const trialMemory = Fact.memory();
const trialChecker = Check.checker(trialMemory);

/** The pass that is looked at. */
let looked: { pass: string | null; here: boolean } = { pass: null, here: false };
/** The song as that pass plays it. */
const view = (): Song | null => song && Form.view(song, looked.pass, looked.here);

/** Runs what needs an open song. */
const withSong = <T>(run: (open: Song) => Result<T>): Result<T> => {
  const open = view();
  return open ? run(open) : fail("song.none", "No song is open");
};

/** A number for each result, so that what the caller has already does not cross the border again. */
const numbers = new WeakMap<object, number>();
let count = 0;
function numberOf(result: object): number {
  let number = numbers.get(result);
  if (!number) numbers.set(result, (number = ++count));
  return number;
}

/** Is told now and then what long work has brought until now, or how far it is; false ends it with what there is. */
export type GoOn<Now> = (now: Now) => boolean | Promise<boolean>;

/** It is told so often, in milliseconds. */
const TOLD_EVERY = 150;

async function inSteps<Now, Made>(steps: Steps<Now, Made>, goOn: GoOn<Now> = () => true): Promise<Made> {
  let told = performance.now();
  let on = true;
  for (let now = steps.next(); ; now = steps.next(on)) {
    if (now.done) return now.value;
    if (performance.now() - told < TOLD_EVERY) continue;
    on = await goOn(now.value);
    told = performance.now();
  }
}

/** Long work on the open song. */
async function withSteps<Now, T>(begin: (open: Song) => Steps<Now, Result<T>>, goOn?: GoOn<Now>): Promise<Result<T>> {
  const open = view();
  return open ? inSteps(begin(open), goOn) : fail("song.none", "No song is open");
}

const books = new Map<Language, Promise<WordBook>>();

export interface Harmony {
  harmony: HarmonyReport;
  verdict: Verdict;
  number: number;
}

export interface Analysis {
  findings: Finding[];
  report: BassVerdict | null;
  /** Null where it is what the caller has. */
  harmony: Harmony | null;
}

export interface AccentView {
  map: AccentMap;
  /** Null where all accents agree. */
  agreed: Agreement | null;
  plan: WeavePlace[];
}

export interface Layouts {
  part: string;
  number: number;
  /** Null where it is what the caller has; otherwise the layouts, or why there are none. */
  voicing: Result<SectionVoicing> | null;
}

/** A key with how the song would be held on a neck in it. */
export type TriedKey = SungKey & { necks: NeckKey[] };

export type ShownOffer = Omit<ReharmCandidate, "events">;

/** What belongs to what changed since the song was last settled, as one edit; null where all of it is there. */
function following(): Edit | null {
  const edits = song ? Edit.followChange(settled, song, { memory }) : [];
  if (!edits.length) settled = song;
  proposed = edits.length ? { do: "all", label: Edit.WHAT_FOLLOWS, edits } : null;
  return proposed;
}

const musicWorker = {
  /** Whether anybody is there. */
  alive: () => true,
  /** `fresh`: a song that was opened, undone or redone, not one that was edited. Answers with what follows. */
  load(next: number, document: Song, { fresh, ask }: { fresh: boolean; ask: boolean }): Edit | null {
    song = document;
    version = next;
    if (fresh) settled = null;
    return ask ? following() : null;
  },
  /**
   * Follows edits, the last of which leads to version `next`; answers with what follows from them, as one edit. `ask`:
   * whether that is wanted. Undefined where this worker does not hold the version before: then the song must be loaded.
   */
  edits(next: number, changes: Edit[], ask: boolean): Edit | null | undefined {
    if (!song || version !== next - changes.length) return undefined;
    for (const change of changes) {
      const made = Edit.repeat(song, change);
      if (!made) return undefined;
      if (settled === song && Edit.isComplete(change)) settled = made;
      song = made;
    }
    version = next;
    return ask ? following() : null;
  },
  /**
   * What followed was made of the song: it is taken over without crossing the border again, and looked at once more.
   */
  took(next: number): Edit | null | undefined {
    const made = song && proposed && version === next - 1 ? Edit.repeat(song, proposed) : null;
    if (!made) return undefined;
    // From here on only what that brought is looked at, so that it comes to an end.
    settled = song;
    song = made;
    version = next;
    return following();
  },
  /** What is asked from now on is asked of a section as this pass plays it. */
  look(pass: string | null, here: boolean): void {
    looked = { pass, here };
  },
  /**
   * Findings and bass report of a section; with `tried`, as if that edit had been made. `known`: number of the harmony
   * the caller has.
   */
  analyze(section: string, bassPart: string, known: number, tried?: Edit): Analysis {
    const open = view();
    if (!open) return { findings: [], report: null, harmony: null };
    const changed = tried ? Edit.apply(open, tried) : null;
    const judged = changed?.ok ? changed.value.song : open;
    const [read, by] = changed?.ok ? [trialMemory.at(judged), trialChecker] : [memory.at(judged), checker];
    const bass = Song.part(judged, bassPart) ?? Song.partByRole(judged, "bass");
    const report = bass && read.get(Fact.bass, section, bass.id);
    const findings = by.section(judged, section);
    const harmony = memory.at(open).get(Fact.harmony, section);
    const number = numberOf(harmony);
    return {
      findings,
      report: report?.ok ? report.value : null,
      harmony: number === known ? null : { harmony, verdict: memory.at(open).get(Fact.verdict, section), number },
    };
  },
  /**
   * Who strikes where in a section, what could be agreed on where accents miss each other, and where a bass would
   * weave.
   */
  accents(section: string, part: string): AccentView | null {
    const open = view();
    if (!open) return null;
    const read = memory.at(open);
    const map = read.get(Fact.accents, section);
    if (!map.ok) return null;
    const agreed = read.get(Fact.agreement, section);
    const bass = Bass.request(read, { section, part });
    return { map: map.value, agreed: agreed.ok ? agreed.value : null, plan: bass.ok ? Bass.weave(bass.value.ctx) : [] };
  },
  /** An edit with what belongs to it, the bass too where it is to go along. */
  withFollowing: (edit: Edit, bass: boolean): Result<Edit> =>
    withSong((open) => {
      const applied = Edit.apply(open, edit);
      return applied.ok ? ok(Edit.withFollowing(open, edit, { bass, memory: trialMemory })) : applied;
    }),
  /** What the voicing path chose for each part of a section. `known`: numbers of what the caller has, by part. */
  layouts(section: string, known: Record<string, number>): Layouts[] {
    const open = view();
    if (!open) return [];
    const read = memory.at(open);
    return Edit.laidOutParts(open).flatMap((part): Layouts[] => {
      const voiced = sure(part.link).kind === "voicing" ? read.get(Fact.voicing, section, part.id) : null;
      if (!voiced) return [];
      const number = numberOf(voiced);
      return [{ part: part.id, number, voicing: known[part.id] === number ? null : voiced }];
    });
  },
  /** What laying the section out anew would gain; null where nothing. */
  anew: (section: string, part: string): Result<Anew | null> =>
    withSong((open) => memory.at(open).get(Fact.anew, section, part)),
  paths: (section: string, part: string, goOn?: GoOn<SectionPath[]>): Promise<Result<SectionPath[]>> =>
    withSteps((open) => Voicing.pathSteps(open, { section, part }), goOn),
  capo: (part: string): Result<CapoChoice[]> => withSong((open) => Frets.capo(open, part)),
  /** Only what is shown crosses the border: the first offers, without the chords they leave alone. */
  reharmonize: (request: Omit<ReharmRequest, "song">): Result<ShownOffer[]> =>
    withSong((open) => {
      const found = Reharm.find({ song: open, ...request });
      return found.ok ? ok(found.value.slice(0, 9).map(({ events: _, ...shown }) => shown)) : found;
    }),
  reharmonizeSection: (
    request: Omit<SectionRequest, "song">,
    goOn?: GoOn<Progressed[]>,
  ): Promise<Result<Progressed[]>> => withSteps((open) => Reharm.sectionSteps({ song: open, ...request }), goOn),
  harmonize: (request: Omit<HarmonizeRequest, "song">, as: "melody" | "bass"): Result<Harmonization[]> =>
    withSong((open) => Reharm.harmonize({ song: open, ...request }, as)),
  gates: (request: BassRequest): Result<{ now: Gate["effect"]; gates: Gate[] }> =>
    withSong((open) => Bass.gates(open, request)),
  /** Removes the least justified note, or adds the best justified one. */
  shape: (request: BassRequest, way: "thin" | "build"): Result<ShapeStep> =>
    withSong((open) => (way === "thin" ? Bass.thinOut : Bass.buildUp)(open, request)),
  /** Lines of text in syllables; a language is loaded when it is first asked for, and stays. */
  async syllables(text: string, language: Language): Promise<Syllable[][]> {
    let book = books.get(language);
    if (!book) books.set(language, (book = wordBook(language)));
    return linesOf(text, await book);
  },
  vocal: (request: VocalRequest, goOn?: GoOn<VocalLines[]>): Promise<Result<VocalLines[]>> =>
    withSteps((open) => Vocal.steps(open, request), goOn),
  /** Voices judged once more after a note of them was changed. */
  rejudge: (request: VocalRequest, lines: VocalLines): Result<VocalLines> =>
    withSong((open) => Vocal.rejudge(open, request, lines)),
  /**
   * Fixes of a place of a finding, tried: by their labels, what each would bring that is as bad; null brings nothing, a
   * fix that does not mend is left out.
   */
  tried(finding: Finding, placeId: string): Record<string, string | null> {
    const place = finding.places.find((p) => p.id === placeId);
    const open = view();
    if (!open || !place) return {};
    const own = Check.tryFixes(open, finding, { fixes: place.fixes, ids: [place.id], checker: trialChecker });
    const all = Check.tryFixes(open, finding, {
      fixes: finding.forAll,
      ids: finding.places.map((p) => p.id),
      checker: trialChecker,
    });
    return Object.fromEntries([...own, ...all].flatMap((t) => (t.mends ? [[t.fix.label, t.brings] as const] : [])));
  },
  /** What can be mended without a doubt of the findings of a section that are named; null where no song is open. */
  async safe(section: string, findings: string[], goOn: GoOn<SafeProgress>): Promise<SafeFixes | null> {
    const open = view();
    return open && inSteps(Check.safeSteps(open, section, findings, trialChecker), goOn);
  },
  /** The whole form at a glance. */
  overview: (): Overview | null => (song ? Check.overview(song, memory) : null),
  /** The song in twelve keys for its singers, each with how guitar and ukulele would hold it. */
  keys: (singers: string[]): Result<TriedKey[]> =>
    withSong((open) =>
      ok(
        Singer.fit(open, { singers }).map((fit) => ({
          ...fit,
          necks: (["guitar", "ukulele"] as const).flatMap(
            (instrument) => Frets.keyOf(open, fit.semitones, instrument) ?? [],
          ),
        })),
      ),
    ),
  counter: (request: CounterRequest, goOn?: GoOn<CounterLine[]>): Promise<Result<CounterLine[]>> =>
    withSteps((open) => Counter.steps(open, request), goOn),
  /**
   * What gives passes of the section that go on elsewhere a last bar of their own in a line that was written for the
   * others.
   */
  endings: (request: BassRequest, notes: BassLine["notes"]): Result<Edit[]> =>
    withSong((open) => ok(Bass.endings(open, request, notes))),
  bass: (request: BassRequest, goOn?: GoOn<BassLine[]>): Promise<Result<BassLine[]>> =>
    withSteps((open) => Bass.steps(open, request), goOn),
};

export type MusicWorker = typeof musicWorker;
expose(musicWorker);
