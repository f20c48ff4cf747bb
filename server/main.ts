import { randomBytes } from "node:crypto";
import { readFileSync } from "node:fs";
import type { AddressInfo } from "node:net";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { must, Song } from "../core/src/index";
import { DEMO } from "../demo/songs";
import { createApp } from "./app";
import { isEverywhere, isLoopback, isToken, ownAddresses } from "./guard";
import { openDatabase } from "./store/database";
import { startFailure } from "./store/failures";
import { SongStore } from "./store/songs";

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), "..");
const host = process.env.HOST ?? "127.0.0.1";
const portText = process.env.PORT ?? "4747";
const port = Number(portText);

if (!Number.isInteger(port) || port < 0 || port > 65535) {
  console.error(`PORT is "${portText}"; it must be a number from 0 to 65535.`);
  process.exit(1);
}

/** The songs with which a new folder begins: the demo, those of a file (a list of songs as JSON), or none. */
function seeds(from = "demo"): readonly { id: string; make(): Song }[] {
  if (from === "demo") return DEMO;
  if (from === "off") return [];
  try {
    const songs = (JSON.parse(readFileSync(from, "utf8")) as unknown[]).map((song) => must(Song.parse(song)));
    return songs.map((song) => ({ id: song.id, make: () => song }));
  } catch (error) {
    console.error(`SEED is "${from}"; it must be off, or a file with a list of songs: ${(error as Error).message}`);
    process.exit(1);
  }
}

/** Names and addresses under which browsers reach it: those that are named, else where it listens. */
const named = (process.env.ALLOWED_HOSTS ?? "").split(",").flatMap((name) => name.trim().toLowerCase() || []);
const reached = isEverywhere(host) ? [...named, ...ownAddresses()] : [...named, host];
const token = isLoopback(host) ? undefined : (process.env.TOKEN ?? randomBytes(16).toString("hex"));
if (token !== undefined && !isToken(token)) {
  console.error("TOKEN must be printable characters, at least one; leave it out to have one made.");
  process.exit(1);
}
const folder = process.env.DATA_DIR ?? path.join(root, "data");
const db = await openDatabase(folder).catch((error: unknown) => {
  console.error(startFailure(error, folder));
  process.exit(1);
});
const store = new SongStore(db);
// Seeding never touches a song that exists, deleted ones included.
for (const { id, make } of seeds(process.env.SEED)) if (!(await store.exists(id))) await store.create(make(), true);

const app = createApp({
  store,
  web: path.join(root, "dist"),
  hosts: isLoopback(host) ? [] : [...reached, host],
  ...(token ? { token } : {}),
});

const server = app.listen(port, host, (error?: Error) => {
  if (error) {
    if ((error as NodeJS.ErrnoException).code === "EADDRINUSE")
      console.error(
        `Port ${port} is taken by another program. Stop that program, or choose another port: PORT=${port + 1} ` +
          "npm start",
      );
    else console.error(`The server cannot listen on ${host}:${port}: ${error.message}`);
    process.exit(1);
  }
  const { port: actual } = server.address() as AddressInfo;
  const name = isLoopback(host) ? "localhost" : (reached[0] ?? host);
  const query = token ? `?token=${encodeURIComponent(token)}` : "";
  console.log(`Hushed Orchard is ready at http://${name}:${actual}/${query}`);
});

for (const signal of ["SIGINT", "SIGTERM"] as const)
  process.on(signal, () => {
    server.close();
    void db.destroy().then(() => process.exit(0));
  });
