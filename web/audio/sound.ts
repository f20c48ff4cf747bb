import { create } from "zustand";
import { realize, type Drum, type Midi, type RealizedSong, type Song, type Ticks } from "../../core/src/index";
import { useSong } from "../store/song";
import { useView } from "../store/view";
import { playersOf } from "./events";
import type { Player } from "./player";

/** The sound packages are loaded at the first touch of play, not with the page. */
let loading: Promise<Player> | null = null;
let player: Player | null = null;
const load = (): Promise<Player> =>
  (loading ??= import("./player").then((module) => {
    player = new module.Player();
    player.onEnd = () => {
      useSound.setState({ playing: false });
      useView.getState().set({ preview: null });
    };
    return player;
  }));

interface SoundState {
  playing: boolean;
  loading: boolean;
}

export const useSound = create<SoundState>(() => ({ playing: false, loading: false }));

/** A part that is silent while it is played in anew. */
let silent: string | null = null;
export const silence = (part: string | null): void => void (silent = part);

function realNow(song: Song): RealizedSong {
  const real = realize(song, useView.getState().wholeSong ? {} : { section: useView.getState().section });
  if (!silent) return real;
  const parts = real.parts.map((p) => (p.id === silent ? { ...p, notes: [] } : p));
  return { ...real, parts, hits: parts.some((p) => p.id === silent && p.role === "drums") ? [] : real.hits };
}

/** Counts what was asked for: a request that was overtaken while the sounds loaded stays silent. */
let ticket = 0;

async function start(song: Song, options: { from: Ticks; to: Ticks; loop: boolean; countIn: boolean; startAt?: Ticks }): Promise<void> {
  const mine = ++ticket;
  useSound.setState({ loading: true });
  try {
    const ready = await load();
    await ready.prepare(playersOf(song));
    if (mine !== ticket) return;
    const view = useView.getState();
    await ready.play(
      realNow(song),
      { from: options.from, to: options.to, solo: view.solo, click: view.click, countIn: options.countIn, speed: view.speed },
      options.loop,
      options.startAt,
    );
    useSound.setState({ playing: true });
  } finally {
    if (mine === ticket) useSound.setState({ loading: false });
  }
}

/** Plays the section (or the whole song once) from its beginning or from a position. */
export async function play(startAt?: Ticks): Promise<void> {
  const { song } = useSong.getState();
  const view = useView.getState();
  if (!song) return;
  const shown = view.preview?.song ?? song;
  const { duration } = realNow(shown);
  const range = view.loop && !view.wholeSong ? { from: view.loop.from, to: view.loop.to } : { from: 0, to: duration };
  await start(shown, {
    ...range,
    loop: !view.wholeSong && (view.loop?.on ?? true),
    countIn: view.countIn,
    ...(startAt !== undefined ? { startAt } : {}),
  });
}

export function stop(): void {
  ticket++;
  player?.stop();
  useSound.setState({ playing: false, loading: false });
}

/** Plays another version of the song around a place, once; the preview is shown while it sounds. */
export async function audition(song: Song, label: string, id: string, from: Ticks, to: Ticks): Promise<void> {
  const view = useView.getState();
  if (view.preview?.id === id && useSound.getState().playing) {
    stop();
    view.set({ preview: null });
    return;
  }
  view.set({ preview: { song, label, id }, wholeSong: false });
  await start(song, { from, to, loop: false, countIn: false });
}

export function endPreview(): void {
  if (!useView.getState().preview) return;
  stop();
  useView.getState().set({ preview: null });
}

/** One note in the sound of a part. */
export async function soundNote(part: string, midi: Midi, duration = 0.35): Promise<void> {
  const { song } = useSong.getState();
  if (!song || useSound.getState().playing) return;
  // In a task of its own: the edit that called for it is drawn first.
  await new Promise((resolve) => setTimeout(resolve));
  await (await load()).soundNote(playersOf(song), part, midi, duration);
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

/** What plays follows edits, solo and click at once. */
export function startSound(): () => void {
  const refresh = () => {
    const { song } = useSong.getState();
    const view = useView.getState();
    if (song && player?.playing)
      player.update(realNow(view.preview?.song ?? song), { solo: view.solo, click: view.click, speed: view.speed });
  };
  const offSong = useSong.subscribe((state, before) => {
    if (state.version !== before.version) refresh();
  });
  const offView = useView.subscribe((state, before) => {
    if (state.section !== before.section && !state.wholeSong) stop();
    else if (state.solo !== before.solo || state.click !== before.click) refresh();
  });
  return () => {
    offSong();
    offView();
    stop();
  };
}

/** For tests: renders the open song with the sounds that are played. */
export async function renderOpenSong(options: {
  section?: string;
  from?: Ticks;
  to?: Ticks;
  solo?: string[];
}): Promise<{ samples: number[]; rate: number }> {
  const { song } = useSong.getState();
  if (!song) throw new Error("no song is open");
  const { render } = await import("./player");
  const { samples, rate } = await render(realize(song, options.section ? { section: options.section } : {}), options);
  return { samples: Array.from(samples), rate };
}
