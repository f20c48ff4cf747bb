import { mkdirSync } from "node:fs";
import path from "node:path";
import knex, { type Knex } from "knex";
import { migrations } from "./migrations";

interface SqliteConnection {
  pragma(text: string): unknown;
}

/** Opens (and creates) the database of a data folder and brings it up to date. */
export async function openDatabase(folder: string): Promise<Knex> {
  mkdirSync(folder, { recursive: true });
  const db = knex({
    client: "better-sqlite3",
    connection: { filename: path.join(folder, "orchard.sqlite") },
    useNullAsDefault: true,
    pool: {
      min: 1,
      max: 1,
      afterCreate(connection: SqliteConnection, done: (error: Error | null, connection: SqliteConnection) => void) {
        connection.pragma("journal_mode = WAL");
        connection.pragma("synchronous = FULL");
        connection.pragma("foreign_keys = ON");
        done(null, connection);
      },
    },
  });
  await db.migrate.latest({ migrationSource: migrations });
  return db;
}
