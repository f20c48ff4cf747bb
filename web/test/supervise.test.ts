import type { Remote } from "comlink";
import { NotAnswered, supervise, type Health, type Started } from "../app/workers/supervise";

interface Band {
  alive(): boolean;
  play(tune: string): string;
}

/** A worker whose answers and failures the test gives. */
class Player implements Started<Band> {
  asked: { name: string; tune: string; answer(value: unknown): void; refuse(error: Error): void }[] = [];
  ended = false;
  private failed: (why: string) => void = () => undefined;
  remote = new Proxy({} as Remote<Band>, {
    get: (_, name) => (tune: string) =>
      new Promise((answer, refuse) => this.asked.push({ name: String(name), tune, answer, refuse })),
  });
  end() {
    this.ended = true;
  }
  onFailure(failed: (why: string) => void) {
    this.failed = failed;
  }
  die() {
    this.failed("it died");
  }
  names = () => this.asked.map((a) => a.name);
}

const settle = () => jest.advanceTimersByTimeAsync(0);

/** Supervised players, the newest last. */
function band({ restore = () => Promise.resolve() }: { restore?: (remote: Remote<Band>) => Promise<unknown> } = {}) {
  const players: Player[] = [];
  const told: Health[] = [];
  const newest = (): Player => players.at(-1) as Player;
  const supervised = supervise<Band>(
    () => {
      players.push(new Player());
      return newest();
    },
    { restore, changed: (h) => told.push(h), patience: () => 1000 },
  );
  return { ...supervised, players, told, newest };
}

beforeEach(() => {
  jest.useFakeTimers();
  jest.spyOn(console, "warn").mockImplementation(() => undefined);
});
afterEach(() => jest.useRealTimers());

test("what has no answer when a worker dies is asked of the next one, which is brought to where the song is first", async () => {
  const order: string[] = [];
  const { calls, newest, players, told } = band({ restore: () => Promise.resolve(order.push("restored")) });
  const heard = calls.play("Row");
  newest().die();
  expect([players[0]?.ended, players.length, told]).toEqual([true, 2, ["mending"]]);
  const meanwhile = calls.play("Gate");
  expect(newest().asked).toEqual([]);
  await settle();
  expect([order, told, newest().asked.map((a) => a.tune)]).toEqual([
    ["restored"],
    ["mending", "well"],
    ["Row", "Gate"],
  ]);
  // The old one's answer comes too late and counts for nothing.
  players[0]?.asked[0]?.answer("old");
  newest().asked.forEach((a) => a.answer(`${a.tune} played`));
  expect([await heard, await meanwhile]).toEqual(["Row played", "Gate played"]);
});

test("a call that does not return in its time is a failure, one that returns just in time is none", async () => {
  const { calls, newest, players } = band();
  const first = calls.play("Row");
  await jest.advanceTimersByTimeAsync(999);
  newest().asked[0]?.answer("just");
  expect(await first).toBe("just");
  void calls.play("Gate");
  await jest.advanceTimersByTimeAsync(1000);
  expect(players).toHaveLength(2);
});

test("what a worker refuses is refused, and no failure of the worker", async () => {
  const { calls, newest, players } = band();
  const heard = calls.play("Row");
  newest().asked[0]?.refuse(new Error("not this one"));
  await expect(heard).rejects.toThrow("not this one");
  expect(players).toHaveLength(1);
});

test("after three failures in a row it stays down; asked again it goes on with what waits", async () => {
  const { calls, newest, players, told, again, health } = band();
  for (let n = 1; n <= 3; n++) {
    expect(players).toHaveLength(n);
    newest().die();
    await settle();
  }
  expect([health(), players.length]).toEqual(["down", 3]);
  const waiting = calls.play("Row");
  expect(newest().asked).toEqual([]);
  again();
  await settle();
  newest().asked[0]?.answer("played");
  expect([await waiting, health(), told.at(-1)]).toEqual(["played", "well", "well"]);
  // An answer between failures begins the count anew.
  for (let n = 0; n < 2; n++) {
    newest().die();
    await settle();
  }
  expect(health()).toBe("well");
});

test("what kills three workers is not answered, and the others' calls are", async () => {
  const { calls, newest, again } = band();
  const deadly = calls.play("Row");
  const refused = expect(deadly).rejects.toThrow(NotAnswered);
  for (let n = 0; n < 3; n++) {
    newest().die();
    await settle();
  }
  await refused;
  const fine = calls.play("Gate");
  again();
  await settle();
  expect(newest().asked.map((a) => a.tune)).toEqual(["Gate"]);
  newest().asked[0]?.answer("played");
  expect(await fine).toBe("played");
});

test("a worker that died while idle is noticed, and so is one that cannot be brought back", async () => {
  const { newest, players } = band();
  await jest.advanceTimersByTimeAsync(10_000);
  expect(newest().names()).toEqual(["alive"]);
  await jest.advanceTimersByTimeAsync(1000);
  expect(players.length).toBeGreaterThan(1);
  const stuck = band({ restore: () => new Promise(() => undefined) });
  stuck.newest().die();
  await jest.advanceTimersByTimeAsync(2000);
  expect(stuck.health()).toBe("down");
  const broken = band({ restore: () => Promise.reject(new Error("no song")) });
  broken.newest().die();
  await settle();
  expect(broken.health()).toBe("down");
});
