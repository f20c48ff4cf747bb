import type { Knex } from "knex";

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable("songs", (t) => {
    t.string("id").primary();
    t.string("title").notNullable();
    t.integer("revision").notNullable();
    t.text("document").notNullable();
    t.bigInteger("created_at").notNullable();
    t.bigInteger("updated_at").notNullable();
    t.bigInteger("deleted_at");
  });
  await db.schema.createTable("revisions", (t) => {
    t.string("song_id").notNullable().references("id").inTable("songs").onDelete("CASCADE");
    t.integer("revision").notNullable();
    t.text("document").notNullable();
    t.string("name");
    t.bigInteger("created_at").notNullable();
    t.primary(["song_id", "revision"]);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable("revisions");
  await db.schema.dropTable("songs");
}
