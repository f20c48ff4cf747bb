import { copyFileSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { firstOf, must, Song } from "../../core/src/index";
import { backUp } from "../store/backup";
import { connect, openDatabase } from "../store/database";
import { startFailure } from "../store/failures";
import { SongStore } from "../store/songs";
import { temporaryFolder } from "./helpers";

let folder: string;
beforeEach(() => (folder = temporaryFolder()));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const titles = async (store: SongStore) => (await store.list()).songs.map((s) => s.title);
const backups = () => readdirSync(path.join(folder, "backups"));
const failure = (of: Promise<unknown>) =>
  of.then(
    () => "",
    (error: unknown) => startFailure(error, "the folder"),
  );

test("a backup holds what was stored when it was asked for, is made while songs are saved, and is restored as it is", async () => {
  const db = await openDatabase(folder);
  const store = new SongStore(db);
  await store.create(must(Song.create({ title: "Before" })));
  const saves = store.create(must(Song.create({ title: "Meanwhile" })));
  const now = new Date("2026-10-01T20:00:00Z");
  const file = await backUp(db, folder, { now });
  await saves;
  await store.create(must(Song.create({ title: "After" })));
  // A second one in the same moment does not write over the first.
  await backUp(db, folder, { now });
  expect(backups()).toHaveLength(2);
  await db.destroy();
  const again = temporaryFolder();
  copyFileSync(file, path.join(again, "orchard.sqlite"));
  const restored = await openDatabase(again);
  const found = await titles(new SongStore(restored));
  expect(found).toContain("Before");
  expect(found).not.toContain("After");
  await restored.destroy();
  rmSync(again, { recursive: true });
});

test("before it is brought up to date a database is backed up; one that is up to date, or new, is not", async () => {
  await (await openDatabase(folder)).destroy();
  await (await openDatabase(folder)).destroy();
  expect(readdirSync(folder)).not.toContain("backups");
  const old = connect(folder);
  await new SongStore(old).create(must(Song.create({ title: "Old" })));
  await old("knex_migrations").where({ name: "003_listed" }).delete();
  await old.raw("DROP INDEX songs_titled");
  await old.raw("DROP INDEX songs_changed");
  await old.destroy();
  const db = await openDatabase(folder);
  expect(await titles(new SongStore(db))).toEqual(["Old"]);
  expect(backups()).toEqual([expect.stringMatching(/^before-update-.*[.]sqlite$/)]);
  await db.destroy();
});

/** Databases as versions of this application left them; `sqlite3 .dump` of a new one is added with each release. */
const LEFT = path.join(__dirname, "databases");
test.each(readdirSync(LEFT))(
  "a database of %s is brought up to date: songs, versions and what was deleted",
  async (dump) => {
    const old = connect(folder);
    await old.raw("PRAGMA foreign_keys = OFF");
    for (const statement of readFileSync(path.join(LEFT, dump), "utf8").split(/;\n/)) {
      if (statement.trim() && !/^(BEGIN|COMMIT|DELETE FROM|INSERT INTO "?sqlite_sequence)/.test(statement.trim()))
        // A question mark would be a value that is given.
        await old.raw(statement.replaceAll("?", "\\?"));
    }
    await old.destroy();
    const db = await openDatabase(folder);
    const store = new SongStore(db);
    expect(backups()).toHaveLength(1);
    const { songs, total } = await store.list();
    expect([songs.map((s) => [s.id, s.revision]), total]).toEqual([[["glides", 2]], 1]);
    const { song } = await store.get("glides");
    expect(song.version).toBe(2);
    expect(Object.values(firstOf(song.sections).notes).flat()).toHaveLength(3);
    expect((await store.revisions("glides")).map((r) => r.name)).toEqual([null, "first night"]);
    expect((await store.revision("glides", 1)).title).toBe(song.title);
    await store.restore("gone");
    expect((await store.list()).total).toBe(2);
    expect(await store.save("glides", 2, { ...song, tempo: 77 })).toBe(3);
    await db.destroy();
  },
);

test("what cannot be opened is told in a sentence with what to do, and left as it is", async () => {
  mkdirSync(path.join(folder, "text"));
  writeFileSync(
    path.join(folder, "text", "orchard.sqlite"),
    "no database at all, but long enough to be read".repeat(99),
  );
  expect(await failure(openDatabase(path.join(folder, "text")))).toMatch(/damaged.*Put a backup/);
  const newer = await openDatabase(path.join(folder, "newer"));
  await newer("knex_migrations").insert({ name: "999_to_come", batch: 9, migration_time: 0 });
  await newer.destroy();
  expect(await failure(openDatabase(path.join(folder, "newer")))).toMatch(/newer version.*DATA_DIR/);
  writeFileSync(path.join(folder, "file"), "");
  expect(await failure(openDatabase(path.join(folder, "file")))).toMatch(/is no folder/);
  const torn = await openDatabase(path.join(folder, "torn"));
  const store = new SongStore(torn);
  for (let i = 0; i < 20; i++) await store.create(must(Song.create({ title: `Row ${i}` })));
  const whole = await backUp(torn, folder);
  await torn.destroy();
  // A page in the middle of the file is overwritten.
  const { readFileSync } = await import("node:fs");
  const bytes = readFileSync(whole);
  bytes.fill(0x7f, 4096 * 3, 4096 * 5);
  mkdirSync(path.join(folder, "hurt"));
  writeFileSync(path.join(folder, "hurt", "orchard.sqlite"), bytes);
  expect(await failure(openDatabase(path.join(folder, "hurt")))).toMatch(/damaged/);
});

test("failures of the system are told by what they are", () => {
  const of = (code: string) => startFailure(Object.assign(new Error("x"), { code }), "the folder");
  expect(of("EACCES")).toMatch(/cannot be written to the folder.*right to write/);
  expect(of("SQLITE_READONLY_DIRECTORY")).toMatch(/cannot be written/);
  expect(of("ENOSPC")).toMatch(/full/);
  expect(of("SQLITE_CORRUPT_VTAB")).toMatch(/damaged/);
  expect(of("EWHATEVER")).toBe("The songs in the folder cannot be opened: x");
  expect(firstOf([of("SQLITE_FULL")])).toMatch(/full/);
});
