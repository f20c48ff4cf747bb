import { existsSync, mkdirSync } from "node:fs";
import path from "node:path";
import type { Knex } from "knex";

/**
 * Writes all songs as they are at this moment to one file, while the server goes on. To restore it: stop the server,
 * put the file in the place of orchard.sqlite, and remove orchard.sqlite-wal and orchard.sqlite-shm.
 * @returns the file.
 */
export async function backUp(db: Knex, folder: string, { now = new Date(), why = "backup" } = {}): Promise<string> {
  const backups = path.join(folder, "backups");
  mkdirSync(backups, { recursive: true });
  const stamp = now.toISOString().replace(/[:.]/g, "-");
  const name = (n: number) => path.join(backups, `${why}-${stamp}${n ? `-${n}` : ""}.sqlite`);
  let n = 0;
  while (existsSync(name(n))) n++;
  await db.raw("VACUUM INTO ?", [name(n)]);
  return name(n);
}
