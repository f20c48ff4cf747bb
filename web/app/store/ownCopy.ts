/**
 * The browser's own copy of edits that the server does not have yet. It is a help, not a condition: where the browser
 * keeps nothing, is full or slow, songs are opened and saved all the same.
 */
import { del, get, keys, set } from "idb-keyval";
import { Song } from "../../../core/src/index";

/** Edits that the server does not have yet. */
export interface Unsent {
  song: Song;
  revision: number;
  /** What was sent on that revision and never answered: the server may have one of these. */
  sent: Song[];
  /** When it was kept. */
  at?: number;
}

/** A copy, and where it lies. */
export interface OwnCopy {
  key: string;
  unsent: Unsent;
}

/** Nobody waits longer than this for the browser's own store, in milliseconds. */
const SLOW = 2000;

/** What a call of the store answers; undefined where it fails or takes too long. */
const attempt = <T>(call: () => Promise<T>): Promise<T | undefined> =>
  new Promise((resolve) => {
    const late = setTimeout(() => resolve(undefined), SLOW);
    const end = (value: T | undefined) => {
      clearTimeout(late);
      resolve(value);
    };
    try {
      call().then(end, () => end(undefined));
    } catch {
      end(undefined);
    }
  });

/** This window, the same after it is loaded again. */
let own = ((): string => {
  try {
    return sessionStorage.getItem("window") ?? newName();
  } catch {
    return newName();
  }
})();
function newName(): string {
  return Math.random().toString(36).slice(2);
}
const later = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const lockOf = (window: string): string => `orchard-window:${window}`;
const locks = (): LockManager | undefined => (typeof navigator === "undefined" ? undefined : navigator.locks);

/** Holds the lock of this window for as long as it is open: so others know whose copies are in use. False if taken. */
const hold = (window: string): Promise<boolean> =>
  new Promise((resolve, reject) => {
    const manager = locks();
    if (!manager) return resolve(true);
    manager
      .request(lockOf(window), { ifAvailable: true }, (lock) => {
        resolve(lock !== null);
        return lock ? new Promise(() => undefined) : undefined;
      })
      .catch(reject);
  });

/** A page that is loaded again may find its own lock not free yet, for so long in milliseconds. */
const LEAVING = 300;

/** A window that was duplicated has the name of the first: it takes another one. */
const named = attempt(async () => {
  const isOurs = async () => (await hold(own)) || (await later(LEAVING), await hold(own));
  if (!(await isOurs())) await hold((own = newName()));
  sessionStorage.setItem("window", own);
});

const PREFIX = "unsent:";
const keyOf = (id: string): string => `${PREFIX}${id}:${own}`;

/** Windows that are open beside this one. */
async function others(): Promise<Set<string>> {
  const state = await attempt(async () => locks()?.query());
  return new Set((state?.held ?? []).flatMap((l) => (l.name && l.name !== lockOf(own) ? [l.name] : [])));
}

/**
 * The newest copy of a song that is this window's, or of a window that is no longer open. Copies of open windows are
 * theirs; the older ones stay until they are opened.
 */
export async function ownCopy(id: string): Promise<OwnCopy | null> {
  await named;
  const all = (await attempt(() => keys<string>())) ?? [keyOf(id)];
  const open = await others();
  const mine = all.filter((key) => {
    if (key !== `${PREFIX}${id}` && !key.startsWith(`${PREFIX}${id}:`)) return false;
    return !open.has(lockOf(key.slice(`${PREFIX}${id}:`.length)));
  });
  const found: OwnCopy[] = [];
  for (const key of mine) {
    const unsent = await attempt(() => get<Unsent>(key));
    if (unsent && Song.parse(unsent.song).ok) found.push({ key, unsent });
  }
  const isOwn = ({ key }: OwnCopy) => Number(key === keyOf(id));
  return found.sort((a, b) => isOwn(b) - isOwn(a) || (b.unsent.at ?? 0) - (a.unsent.at ?? 0))[0] ?? null;
}

/** Keeps edits in this window's copy; whether the browser could. */
export const keepCopy = async (unsent: Unsent): Promise<boolean> =>
  (await attempt(() => set(keyOf(unsent.song.id), { ...unsent, at: Date.now() }).then(() => true))) ?? false;

/** Forgets a copy of what is stored by now: this window's, or the one that was taken over from another. */
export const dropCopy = async (id: string, key = keyOf(id)): Promise<void> => void (await attempt(() => del(key)));
