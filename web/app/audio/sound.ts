import { create } from "zustand";
import { type Drum, Fact, type Midi, Place, Plain, type RealizedSong, Song, type Ticks } from "../../../core/src/index";
import { whenIdle } from "../idle";
import { formNow } from "../store/form";
import { passInView } from "../store/passes";
import { usePlayback } from "../store/playback";
import { factsNow } from "../store/sectionData";
import { useSelection } from "../store/selection";
import { songNow, useSong } from "../store/song";
import { playersOf } from "./events";
import type { Leg, Player } from "./player";
import { stageOf, stageOfForm, type Stage } from "./stage";

/** The sound packages are loaded at the first touch of play, not with the page. */
let loading: Promise<Player> | null = null;
let player: Player | null = null;
const load = (): Promise<Player> =>
  (loading ??= import("./player").then((module) => {
    player = new module.Player();
    player.onEnd = () => {
      useSound.setState({ playing: false });
      usePlayback.setState({ preview: null });
    };
    return player;
  }));

/** They are read so many milliseconds after a song was opened at the latest. */
const LATEST = 10_000;

/** Reads the sound packages while nothing else happens, so that the first note asked for does not wait for them. */
export function warmUp(): () => void {
  return whenIdle(() => void import("./player"), LATEST);
}

interface SoundState {
  playing: boolean;
  loading: boolean;
  /** Another number whenever playing began, or goes on otherwise than before. */
  since: number;
}

export const useSound = create<SoundState>(() => ({ playing: false, loading: false, since: 0 }));

/**
 * What is heard of a song: the section in view or the whole form, without the part that is played in anew and those
 * that are out of the pass in view.
 */
function heardOf(song: Song): Stage {
  const { wholeSong, silent } = usePlayback.getState();
  const { section, pass } = useSelection.getState();
  const realOf = (place: ReturnType<typeof Place.section>) => factsNow(song).get(Fact.realized, place, "played");
  const without = (real: RealizedSong, out: ReadonlySet<string>): RealizedSong => {
    if (!out.size) return real;
    const parts = real.parts.map((p) => (out.has(p.id) ? { ...p, notes: [] } : p));
    return { ...real, parts, hits: parts.some((p) => out.has(p.id) && p.role === "drums") ? [] : real.hits };
  };
  const mute = silent ? [silent] : [];
  if (wholeSong) return stageOfForm(song, formNow(song), (id) => without(realOf(Place.pass(song, id)), new Set(mute)));
  const here = passInView(song, pass, section);
  const out = (here !== null && Song.pass(song, here)?.muted) || [];
  return stageOf(without(realOf(Place.section(section)), new Set([...mute, ...out])));
}

/**
 * Parts that what is auditioned would change: they come forward a little. None where it changes all of them, or
 * nothing.
 */
function changedParts(song: Song): string[] {
  if (!useSong.getState().song) return [];
  const written = songNow();
  if (written === song) return [];
  const { section } = useSelection.getState();
  const [before, now] = [Song.realize(written, { section }), Song.realize(song, { section })];
  const sounds = (real: RealizedSong, id: string) => {
    const part = real.parts.find((p) => p.id === id);
    return part?.role === "drums" ? real.hits : part?.notes;
  };
  const changed = now.parts.flatMap(({ id }) => (Plain.same(sounds(before, id), sounds(now, id)) ? [] : [id]));
  return changed.length < now.parts.length ? changed : [];
}

/** Counts what was asked for: a request that was overtaken while the sounds loaded stays silent. */
let ticket = 0;

async function start(
  song: Song,
  options: { from: Ticks; to: Ticks; loop: boolean; countIn: boolean; startAt?: Ticks },
): Promise<void> {
  const mine = ++ticket;
  useSound.setState({ loading: true });
  try {
    const ready = await load();
    await ready.prepare(playersOf(song));
    if (mine !== ticket) return;
    const { solo, click, speed } = usePlayback.getState();
    const { from, to, countIn } = options;
    const forward = changedParts(song);
    await ready.play(heardOf(song), { from, to, solo, click, countIn, speed, forward }, options.loop, options.startAt);
    useSound.setState({ playing: true, since: useSound.getState().since + 1 });
  } finally {
    if (mine === ticket) useSound.setState({ loading: false });
  }
}

/**
 * Plays the section (or the whole song once) from its beginning, from the place set in the ruler, or from a position.
 */
export async function play(position?: Ticks): Promise<void> {
  const { song } = useSong.getState();
  if (!song) return;
  const { preview, from, wholeSong, countIn } = usePlayback.getState();
  const startAt = position ?? (wholeSong ? null : from);
  const shown = preview?.song ?? (wholeSong ? song : songNow());
  await start(shown, { ...rangeOf(shown, wholeSong), countIn, ...(startAt !== null ? { startAt } : {}) });
}

/** What is played of a song: the passes or bars that are looped, else all of it. A section goes round unless told. */
function rangeOf(shown: Song, wholeSong: boolean): { from: Ticks; to: Ticks; loop: boolean } {
  const whole = { from: 0, to: heardOf(shown).duration };
  if (wholeSong) {
    const looped = loopedPasses(shown);
    return looped ? { ...looped, loop: true } : { ...whole, loop: false };
  }
  const { loop } = usePlayback.getState();
  return loop ? { from: loop.from, to: loop.to, loop: loop.on } : { ...whole, loop: true };
}

/** Where the passes that are played again and again lie in the whole song; null where none are, or they are gone. */
function loopedPasses(song: Song): { from: Ticks; to: Ticks } | null {
  const { passes } = usePlayback.getState();
  const form = passes ? formNow(song) : [];
  const [first, last] = [form.find((p) => p.id === passes?.from), form.find((p) => p.id === passes?.to)];
  return first && last && last.start >= first.start ? { from: first.start, to: last.start + last.duration } : null;
}

export function stop(): void {
  ticket++;
  player?.stop();
  useSound.setState({ playing: false, loading: false });
}

/**
 * Plays another version of the song around a place, once; the preview is shown while it sounds. Asked for again, it
 * stops.
 */
export async function audition(
  song: Song,
  label: string,
  id: string,
  { from, to }: { from: Ticks; to: Ticks },
): Promise<void> {
  if (usePlayback.getState().preview?.id === id && useSound.getState().playing) return endPreview();
  usePlayback.setState({ preview: { song, label, id }, wholeSong: false });
  await start(song, { from, to, loop: false, countIn: false });
}

export function endPreview(): void {
  if (!usePlayback.getState().preview) return;
  stop();
  usePlayback.setState({ preview: null });
}

/** One note in the sound of a part, unless the band plays. */
export async function soundNote(part: string, midi: Midi, duration = 0.35): Promise<void> {
  if (useSound.getState().playing) return;
  // In a task of its own: the edit that called for it is drawn first.
  await new Promise((resolve) => setTimeout(resolve));
  await soundPlayedNote(part, midi, duration);
}

/** A key that is played in: it sounds while the band plays, too. */
export async function soundPlayedNote(part: string, midi: Midi, duration = 0.35): Promise<void> {
  const { song } = useSong.getState();
  if (song) await (await load()).soundNote(playersOf(song), part, midi, duration);
}

/** A drum that is played in. */
export async function soundPlayedDrum(part: string, drum: Drum, velocity: number): Promise<void> {
  const { song } = useSong.getState();
  if (song) await (await load()).strike(playersOf(song), part, drum, velocity);
}

export const playhead = (): Ticks | null => (useSound.getState().playing ? (player?.position() ?? null) : null);

/** What is heard, in ticks of its section, and how it goes on at one tempo. */
export interface Played extends Leg {
  section: string;
  /** The pass it belongs to and its place in the song, where the whole song plays. */
  pass: string | null;
  inSong: Ticks;
}

/** What is heard now; null while nothing plays. */
export function playedPlace(): Played | null {
  const leg = useSound.getState().playing ? player?.leg() : null;
  const song = usePlayback.getState().preview?.song ?? useSong.getState().song;
  if (!leg || !song) return null;
  const inSong = leg.tick;
  if (!usePlayback.getState().wholeSong)
    return { ...leg, section: useSelection.getState().section, pass: null, inSong };
  const pass = formNow(song).findLast((p) => p.start <= Math.max(0, leg.tick));
  if (!pass) return null;
  const by = (song.form.find((p) => p.id === pass.id)?.bars?.[0] ?? 0) * pass.meter.bar - pass.start;
  return { ...leg, tick: leg.tick + by, until: leg.until + by, section: pass.section, pass: pass.id, inSong };
}

/** How the playhead goes on in a section; null where it is elsewhere, or nothing plays. */
export function playedIn(section: string): Played | null {
  const at = playedPlace();
  return at?.section === section ? at : null;
}

/** Where the playhead stands in a section; null where it is elsewhere, or nothing plays. */
export const playheadIn = (section: string): Ticks | null => playedIn(section)?.tick ?? null;

/**
 * What plays follows edits, solo, click and another section at once. Returns a function that ends this and all sound.
 */
export function startSound(): () => void {
  const refresh = () => {
    const { song } = useSong.getState();
    const { preview, solo, click, speed, wholeSong } = usePlayback.getState();
    if (song && player?.playing)
      player.update(heardOf(preview?.song ?? (wholeSong ? song : songNow())), { solo, click, speed });
    if (player?.playing) useSound.setState(({ since }) => ({ since: since + 1 }));
  };
  const ends = [
    useSong.subscribe((state, before) => {
      if (state.version !== before.version) refresh();
    }),
    usePlayback.subscribe((state, before) => {
      if (state.solo !== before.solo || state.click !== before.click) refresh();
    }),
    useSelection.subscribe((state, before) => {
      if (usePlayback.getState().wholeSong) return;
      if (state.section !== before.section) stop();
      else if (state.pass !== before.pass || state.here !== before.here) refresh();
    }),
  ];
  return () => {
    for (const end of ends) end();
    stop();
  };
}

/** For tests: renders the open song, or another one, with the sounds that are played. */
export async function renderSong(options: {
  song?: Song;
  section?: string;
  from?: Ticks;
  to?: Ticks;
  solo?: string[];
}): Promise<{ samples: number[]; rate: number }> {
  const song = options.song ?? useSong.getState().song;
  if (!song) throw new Error("no song is open");
  const { render } = await import("./player");
  const { samples, rate } = await render(
    Song.realize(song, options.section ? { section: options.section } : {}),
    options,
  );
  return { samples: Array.from(samples), rate };
}
