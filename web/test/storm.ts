import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer, request, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import { Edit, firstOf, must, nth, Song, sure } from "../../core/src/index";

/** Numbers from 0 to 1 that are the same for a seed (Park and Miller's generator). */
const random = (seed: number) => () => (seed = (seed * 16807) % 2147483647) / 2147483647;

/** What may become of a request on its way. */
const FAULTS = ["passed", "lost", "answer lost", "cut off", "late", "twice"] as const;
type Fault = (typeof FAULTS)[number];
/** Of so many saves one has a fault, each kind in its turn: so every kind comes up, however the writers race. */
const EVERY = 3;
const LATE = 30;
/** So many saves come between two kills at the least. */
const BETWEEN = 4;

/** A line between writers and a server that comes and goes: it loses, delays and repeats what passes over it. */
class Line {
  readonly faults = Object.fromEntries(FAULTS.map((f) => [f, 0])) as Record<Fault, number>;
  port = 0;
  private server: Server;

  /** Saves that came over it. */
  saves = 0;

  constructor() {
    this.server = createServer((from, to) => void this.pass(from, to));
  }

  listen = (): Promise<string> =>
    new Promise((resolve) =>
      this.server.listen(0, "127.0.0.1", () =>
        resolve(`http://127.0.0.1:${(this.server.address() as AddressInfo).port}`),
      ),
    );

  close(): void {
    this.server.closeAllConnections();
    this.server.close();
  }

  private next(): Fault {
    const at = this.saves++;
    return at % EVERY ? "passed" : nth(FAULTS, 1 + ((at / EVERY) % (FAULTS.length - 1)));
  }

  private async pass(from: IncomingMessage, to: ServerResponse): Promise<void> {
    const chunks: Buffer[] = [];
    for await (const chunk of from) chunks.push(chunk as Buffer);
    const body = Buffer.concat(chunks);
    const fault = from.method === "PUT" ? this.next() : "passed";
    this.faults[fault]++;
    if (fault === "lost") return void to.destroy();
    if (fault === "late") await new Promise((resolve) => setTimeout(resolve, LATE));
    if (fault === "twice") await this.send(from, body).catch(() => null);
    const answer = await this.send(from, body).catch(() => null);
    if (!answer || fault === "answer lost") return void to.destroy();
    to.writeHead(answer.status, answer.headers);
    if (fault !== "cut off") return void to.end(answer.body);
    to.write(answer.body.subarray(0, answer.body.length / 2), () => to.destroy());
  }

  private send(
    { method, url, headers }: IncomingMessage,
    body: Buffer,
  ): Promise<{ status: number; headers: IncomingMessage["headers"]; body: Buffer }> {
    return new Promise((resolve, reject) => {
      const asked = request(
        {
          ...{ host: "127.0.0.1", port: this.port, method, path: url, agent: false },
          headers: { ...headers, host: `127.0.0.1:${this.port}`, connection: "close" },
        },
        (answer) => {
          const chunks: Buffer[] = [];
          answer.on("data", (chunk: Buffer) => chunks.push(chunk));
          answer.on("error", reject);
          answer.on("aborted", () => reject(new Error("cut off")));
          answer.on("end", () =>
            resolve({ status: answer.statusCode ?? 502, headers: answer.headers, body: Buffer.concat(chunks) }),
          );
        },
      );
      asked.on("error", reject);
      asked.end(body);
    });
  }
}

/** The real server in a process of its own. */
async function launch(folder: string): Promise<{ child: ChildProcess; port: number }> {
  const child = spawn(process.execPath, [sure(process.env.SERVER)], {
    env: { ...process.env, PORT: "0", DATA_DIR: folder, SEED: "off" },
    stdio: ["ignore", "pipe", "ignore"],
  });
  const port = await new Promise<number>((resolve, reject) => {
    sure(child.stdout).on("data", (text: Buffer) => {
      const match = /http:\/\/localhost:(\d+)/.exec(String(text));
      if (match) resolve(Number(match[1]));
    });
    child.on("exit", (code) => reject(new Error(`server ended with ${code}`)));
  });
  return { child, port };
}

/** Runs a writer; resolves with what it counted. */
const write = (...args: string[]): Promise<{ acknowledged: number; conflicts: number }> =>
  new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [sure(process.env.STORM), ...args], { stdio: ["ignore", "pipe", "pipe"] });
    let said = "";
    let failed = "";
    child.stdout.on("data", (text: Buffer) => (said += String(text)));
    child.stderr.on("data", (text: Buffer) => (failed += String(text)));
    child.on("close", (code) =>
      code === 0 ? resolve(JSON.parse(said) as never) : reject(new Error(`a writer failed: ${failed}`)),
    );
  });

export interface Storm {
  acknowledged: number;
  conflicts: number;
  kills: number;
  faults: Record<Fault, number>;
  /** Edits that were made, and those of them that are stored in the end. */
  made: number;
  stored: number;
}

/**
 * Two writers with one song, each with a part of its own, over a line with faults, to a server that is killed again
 * and again: what is stored in the end against what was written. `STORM` and `SERVER` name the programs.
 */
export async function storm({ edits, every, seed }: { edits: number; every: number; seed: number }): Promise<Storm> {
  const folder = mkdtempSync(path.join(tmpdir(), "orchard-storm-"));
  const chance = random(seed);
  const line = new Line();
  const address = await line.listen();
  let { child, port } = await launch(folder);
  line.port = port;
  let kills = 0;
  let done = false;
  try {
    const direct = `http://127.0.0.1:${port}/api/songs`;
    const made = await fetch(direct, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ title: "Storm" }),
    });
    const song = must(
      Edit.apply((await made.json()) as Song, { do: "setSection", section: "s1", bars: Math.ceil(edits / 8) + 1 }),
    ).song;
    await fetch(`${direct}/${song.id}`, {
      method: "PUT",
      headers: { "Content-Type": "application/json", "If-Match": made.headers.get("etag") ?? "" },
      body: JSON.stringify(song),
    });
    const writers = Promise.all(["melody", "bass"].map((part) => write(address, song.id, part, String(edits)))).finally(
      () => (done = true),
    );
    const weather = (async () => {
      while (!done) {
        const before = line.saves;
        await new Promise((resolve) => setTimeout(resolve, every * (0.5 + chance())));
        // However slow the machine, something happens between two kills.
        while (!done && line.saves < before + BETWEEN) await new Promise((resolve) => setTimeout(resolve, 20));
        if (done) break;
        const ended = new Promise((resolve) => child.on("exit", resolve));
        child.kill("SIGKILL");
        await ended;
        kills++;
        ({ child, port } = await launch(folder));
        line.port = port;
      }
    })();
    const counts = await writers;
    await weather;
    const stored = (await (await fetch(`http://127.0.0.1:${port}/api/songs/${song.id}`)).json()) as Song;
    const sum = (of: "acknowledged" | "conflicts") => counts.reduce((n, c) => n + c[of], 0);
    const starts = (part: string) => new Set(firstOf(stored.sections).notes[part]?.map((n) => n.start)).size;
    return {
      ...{ acknowledged: sum("acknowledged"), conflicts: sum("conflicts"), kills, faults: line.faults },
      ...{ made: 2 * edits, stored: starts("melody") + starts("bass") },
    };
  } finally {
    done = true;
    child.kill("SIGKILL");
    line.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
