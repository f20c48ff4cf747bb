import { mkdtempSync, rmSync } from "node:fs";
import type { Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import type { Knex } from "knex";
import { createApp, type AppOptions } from "../app";
import { openDatabase } from "../store/database";
import { SongStore } from "../store/songs";

export const temporaryFolder = (): string => mkdtempSync(path.join(tmpdir(), "orchard-"));

/** A real server on a free port with a real database in a temporary folder. */
export async function startServer(
  options: Partial<AppOptions> & { now?: () => number } = {},
): Promise<{ url: string; store: SongStore; db: Knex; stop(): Promise<void> }> {
  const folder = temporaryFolder();
  const db = await openDatabase(folder);
  const store = new SongStore(db, options.now);
  const server = await new Promise<Server>((resolve) => {
    const s = createApp({ store, ...options }).listen(0, "127.0.0.1", () => resolve(s));
  });
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    store,
    db,
    async stop() {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await db.destroy();
      rmSync(folder, { recursive: true });
    },
  };
}
