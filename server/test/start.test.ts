import { sure } from "../../core/src/index";
import { spawn, type ChildProcess } from "node:child_process";
import { rmSync } from "node:fs";
import net, { type AddressInfo } from "node:net";
import path from "node:path";
import { demoSongs } from "../../core/test/demos";
import { ownAddresses } from "../guard";
import { temporaryFolder } from "./helpers";

const root = path.join(__dirname, "../..");

const started: ChildProcess[] = [];
const start = (env: Record<string, string>): ChildProcess => {
  const child = spawn(process.execPath, [sure(process.env.SERVER)], {
    cwd: root,
    env: { ...process.env, ...env },
    stdio: ["ignore", "pipe", "pipe"],
  });
  started.push(child);
  return child;
};
// A test that fails half-way leaves no server behind.
afterAll(() => started.forEach((child) => child.kill("SIGKILL")));

/** What a process says, and its exit code; ended once `until` was said. */
async function said(child: ChildProcess, until?: RegExp): Promise<{ text: string; code: number | null }> {
  let text = "";
  return new Promise((resolve) => {
    const read = (chunk: Buffer) => {
      text += String(chunk);
      if (until?.test(text)) resolve({ text, code: null });
    };
    sure(child.stdout).on("data", read);
    sure(child.stderr).on("data", read);
    child.on("exit", (code) => resolve({ text, code }));
  });
}

test("the server seeds the demo once, prints its address, and never touches a song that exists", async () => {
  const folder = temporaryFolder();
  for (const expected of ["Lanterns on Row Nine", "Changed by hand"]) {
    const child = start({ PORT: "0", DATA_DIR: folder });
    const { text } = await said(child, /ready at http\S+/);
    const url = sure(/http:\/\/localhost:\d+/.exec(text))[0].replace("localhost", "127.0.0.1");
    const list = (await (await fetch(`${url}/api/songs`)).json()) as { id: string; title: string }[];
    expect(list).toHaveLength(4);
    expect(list.map((s) => s.title)).toContain(expected);
    const got = await fetch(`${url}/api/songs/lanterns-on-row-nine`);
    const song = (await got.json()) as { title: string };
    await fetch(`${url}/api/songs/lanterns-on-row-nine`, {
      method: "PUT",
      headers: { "Content-Type": "application/json", "If-Match": sure(got.headers.get("etag")) },
      body: JSON.stringify({ ...song, title: "Changed by hand" }),
    });
    const ended = new Promise((resolve) => child.on("exit", resolve));
    child.kill("SIGKILL");
    await ended;
  }
  rmSync(folder, { recursive: true, force: true });
});

test("beyond this machine the printed address opens with its token; an empty token is refused in a sentence", async () => {
  const folder = temporaryFolder();
  const env = { HOST: "0.0.0.0", PORT: "0", DATA_DIR: folder, SEED: "off" };
  const child = start({ ...env, TOKEN: "two words; and 100 %" });
  const { text } = await said(child, /ready at http\S+/);
  const printed = new URL(sure(/http:\S+/.exec(text))[0]);
  // An address of this machine in its network, where it has one.
  const [own] = ownAddresses();
  if (own !== undefined) expect(printed.hostname).toBe(own);
  const list = (query: string) => fetch(`http://${printed.host}/api/songs${query}`);
  expect((await list("")).status).toBe(401);
  expect((await list(printed.search)).status).toBe(200);
  child.kill("SIGKILL");
  const refused = await said(start({ ...env, TOKEN: "" }));
  expect([refused.code, refused.text]).toEqual([1, expect.stringContaining("TOKEN must be printable characters")]);
  rmSync(folder, { recursive: true, force: true });
});

test("a new folder may begin with the songs of a file; a file that has none is named in a sentence", async () => {
  const folder = temporaryFolder();
  const child = start({ PORT: "0", DATA_DIR: folder, SEED: sure(process.env.DEMO_SONGS) });
  const { text } = await said(child, /ready at http\S+/);
  const url = sure(/http:\/\/localhost:\d+/.exec(text))[0].replace("localhost", "127.0.0.1");
  const list = (await (await fetch(`${url}/api/songs`)).json()) as { id: string }[];
  expect(list.map((s) => s.id).sort()).toEqual(
    demoSongs()
      .map((s) => s.id)
      .sort(),
  );
  child.kill("SIGKILL");
  for (const file of ["nowhere.json", __filename]) {
    const refused = await said(start({ PORT: "0", DATA_DIR: folder, SEED: file }));
    expect([refused.code, refused.text]).toEqual([1, expect.stringContaining(`SEED is "${file}"; it must be off`)]);
  }
  rmSync(folder, { recursive: true, force: true });
});

test("a taken port and a senseless one are named in a sentence", async () => {
  const folder = temporaryFolder();
  const holder = net.createServer();
  await new Promise<void>((resolve) => holder.listen(0, "127.0.0.1", resolve));
  const { port } = holder.address() as AddressInfo;
  const taken = await said(start({ PORT: String(port), DATA_DIR: folder, SEED: "off" }));
  expect([taken.code, taken.text]).toEqual([1, expect.stringContaining(`Port ${port} is taken by another program`)]);
  const senseless = await said(start({ PORT: "harvest", DATA_DIR: folder, SEED: "off" }));
  expect([senseless.code, senseless.text]).toEqual([1, expect.stringContaining('PORT is "harvest"')]);
  holder.close();
  rmSync(folder, { recursive: true, force: true });
});
