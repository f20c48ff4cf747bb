import { sure } from "../../core/src/index";
import { spawn, type ChildProcess } from "node:child_process";
import { rmSync } from "node:fs";
import path from "node:path";
import type { Song } from "../../core/src/index";
import { temporaryFolder } from "./helpers";

const root = path.join(__dirname, "../..");

/** The real server in a process of its own. */
async function launch(folder: string): Promise<{ child: ChildProcess; url: string }> {
  const child = spawn(process.execPath, [sure(process.env.SERVER)], {
    cwd: root,
    env: { ...process.env, PORT: "0", DATA_DIR: folder, SEED: "off" },
    stdio: ["ignore", "pipe", "ignore"],
  });
  const url = await new Promise<string>((resolve, reject) => {
    sure(child.stdout).on("data", (text: Buffer) => {
      const match = /http:\S+/.exec(String(text));
      if (match) resolve(match[0].replace("localhost", "127.0.0.1").replace(/\/$/, ""));
    });
    child.on("exit", (code) => reject(new Error(`server ended with ${code}`)));
  });
  return { child, url };
}

test("killing the server during saves loses at most the edit in flight", async () => {
  const folder = temporaryFolder();
  let { child, url } = await launch(folder);
  try {
    const song = (await (
      await fetch(`${url}/api/songs`, {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify({ title: "Storm" }),
      })
    ).json()) as Song;
    let confirmed = { revision: 1, tempo: song.tempo };
    for (let round = 0; round < 4; round++) {
      const ended = new Promise((resolve) => child.on("exit", resolve));
      const killAt = confirmed.revision + 2 + (round % 3);
      let sent = confirmed;
      for (let alive = true; alive;) {
        sent = { revision: confirmed.revision + 1, tempo: 40 + ((confirmed.revision * 13) % 300) };
        // The kill falls at another moment of a save each round.
        if (sent.revision === killAt) setTimeout(() => child.kill("SIGKILL"), round * 2);
        try {
          const answer = await fetch(`${url}/api/songs/${song.id}`, {
            method: "PUT",
            headers: { "Content-Type": "application/json", "If-Match": `"${confirmed.revision}"` },
            body: JSON.stringify({ ...song, tempo: sent.tempo }),
          });
          if (answer.ok) confirmed = sent;
          else alive = false;
        } catch {
          alive = false;
        }
      }
      await ended;
      ({ child, url } = await launch(folder));
      const after = await fetch(`${url}/api/songs/${song.id}`);
      const stored = {
        revision: Number(sure(/\d+/.exec(sure(after.headers.get("etag"))))[0]),
        tempo: ((await after.json()) as Song).tempo,
      };
      // What was confirmed is there; the one edit in flight may be there too, whole.
      expect([confirmed, sent]).toContainEqual(stored);
      confirmed = stored;
    }
    expect(confirmed.revision).toBeGreaterThan(5);
  } finally {
    child.kill("SIGKILL");
    rmSync(folder, { recursive: true, force: true });
  }
}, 180_000);
