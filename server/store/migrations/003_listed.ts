import type { Knex } from "knex";

/** Songs are listed by when they were changed and by title, a page at a time. */
export async function up(db: Knex): Promise<void> {
  await db.raw("CREATE INDEX songs_changed ON songs (deleted_at, updated_at)");
  await db.raw("CREATE INDEX songs_titled ON songs (deleted_at, title COLLATE NOCASE)");
}

export async function down(db: Knex): Promise<void> {
  await db.raw("DROP INDEX songs_titled");
  await db.raw("DROP INDEX songs_changed");
}
