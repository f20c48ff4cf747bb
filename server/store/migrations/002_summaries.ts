import type { Knex } from "knex";

/**
 * What the list of songs shows, so that it need not read every document. Empty until the song is next listed or saved.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable("songs", (t) => void t.text("summary"));
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable("songs", (t) => t.dropColumn("summary"));
}
