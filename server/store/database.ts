import { existsSync, mkdirSync } from "node:fs";
import path from "node:path";
import knex, { type Knex } from "knex";
import { backUp } from "./backup";
import { damaged, StartProblem } from "./failures";
import { migrations } from "./migrations";

interface SqliteConnection {
  pragma(text: string): unknown;
}

const fileIn = (folder: string): string => path.join(folder, "orchard.sqlite");

/** Connects to the database of a data folder, as it is. */
export const connect = (folder: string): Knex =>
  knex({
    client: "better-sqlite3",
    connection: { filename: fileIn(folder) },
    useNullAsDefault: true,
    // What cannot be opened is thrown, and told by whoever asked.
    log: { error() {} },
    pool: {
      min: 1,
      max: 1,
      afterCreate(connection: SqliteConnection, done: (error: Error | null, connection: SqliteConnection) => void) {
        try {
          connection.pragma("journal_mode = WAL");
          connection.pragma("synchronous = FULL");
          connection.pragma("foreign_keys = ON");
          done(null, connection);
        } catch (error) {
          done(error as Error, connection);
        }
      },
    },
  });

/**
 * Opens (and creates) the database of a data folder, looks whether it is whole, and brings it up to date; it is backed
 * up before.
 * @throws StartProblem where the file is damaged or of a newer version; what the system and SQLite throw otherwise.
 */
export async function openDatabase(folder: string): Promise<Knex> {
  mkdirSync(folder, { recursive: true });
  const isOld = existsSync(fileIn(folder));
  const db = connect(folder);
  try {
    if (isOld) await lookAt(db, folder);
    await db.migrate.latest({ migrationSource: migrations });
    return db;
  } catch (error) {
    await db.destroy();
    throw error;
  }
}

/** Looks at a file that was there before: whether it is whole, known, and to be brought up to date. */
async function lookAt(db: Knex, folder: string): Promise<void> {
  const [first] = (await db.raw("PRAGMA quick_check(1)")) as { quick_check?: string }[];
  if (first?.quick_check !== "ok") throw new StartProblem(damaged(folder));
  const known = await migrations.getMigrations([]);
  const done = (await db.schema.hasTable("knex_migrations"))
    ? ((await db("knex_migrations").select("name")) as { name: string }[]).map((m) => m.name)
    : [];
  if (done.some((name) => !known.includes(name)))
    throw new StartProblem(
      `The songs in ${folder} were stored by a newer version of Hushed Orchard. Start that version, or choose ` +
        "another folder: DATA_DIR=/some/folder npm start",
    );
  if (done.length && done.length < known.length) await backUp(db, folder, { why: "before-update" });
}
