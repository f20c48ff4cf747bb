import { randomUUID } from "node:crypto";
import type { Knex } from "knex";
import { Key, must, type Result, Song } from "../../core/src/index";
import type { Contents, RevisionInfo, SongSummary } from "../../shared/songs";
import { HttpProblem } from "../httpProblem";

interface Row {
  id: string;
  title: string;
  revision: number;
  document: string;
  /** What the list shows, as JSON; null until it is worked out. */
  summary: string | null;
  created_at: number;
  updated_at: number;
  deleted_at: number | null;
}

const contentsOf = (song: Song): Contents => {
  const lengths = new Map(song.sections.map((s) => [s.id, s.bars]));
  return {
    key: Key.name(must(Key.parse(song.key))),
    tempo: song.tempo,
    meter: song.meter,
    bars: song.form.reduce(
      (sum, pass) => sum + (pass.bars ? pass.bars[1] - pass.bars[0] : (lengths.get(pass.sectionId) ?? 0)),
      0,
    ),
    sections: song.sections.length,
  };
};

export interface Stored {
  song: Song;
  revision: number;
}

/** Which songs are listed. */
export interface Listed {
  search?: string | undefined;
  /** Changed last first, or by title. */
  sort?: "changed" | "title" | undefined;
  limit?: number | undefined;
  offset?: number | undefined;
}

export interface SongPage {
  songs: SongSummary[];
  /** All that were found, on other pages too. */
  total: number;
}

/** So many songs are listed at a time. */
const PAGE = 100;

/** Older versions of one song without a name take so much room at most, in characters. */
export const HISTORY_ROOM = 20_000_000;

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;

/** Songs and their revisions. Every change is one transaction; a song's newest document is also its newest revision. */
export class SongStore {
  constructor(
    private readonly db: Knex,
    private readonly now: () => number = Date.now,
    private readonly historyRoom = HISTORY_ROOM,
  ) {}

  /** A page of the songs whose titles hold a text, in some order, and how many there are in all. */
  async list({ search = "", sort = "changed", limit = PAGE, offset = 0 }: Listed = {}): Promise<SongPage> {
    const text = search.trim().replace(/[\\%_]/g, "\\$&");
    const found = () => {
      const all = this.db<Row>("songs").whereNull("deleted_at");
      return text ? all.whereRaw("title LIKE ? ESCAPE '\\'", [`%${text}%`]) : all;
    };
    const counted = await found().count<{ n: number }[]>({ n: "*" });
    const ordered =
      sort === "title"
        ? found().orderByRaw("title COLLATE NOCASE")
        : found().orderBy("updated_at", "desc").orderByRaw("title COLLATE NOCASE");
    const rows = await ordered
      .orderBy("id")
      .limit(limit)
      .offset(offset)
      .select("id", "title", "revision", "updated_at", "summary");
    return { songs: await this.summaries(rows), total: Number(counted[0]?.n ?? 0) };
  }

  private summaries(rows: readonly Pick<Row, "id" | "title" | "revision" | "updated_at" | "summary">[]) {
    return Promise.all(
      rows.map(async ({ id, title, revision, updated_at: updatedAt, summary }) => {
        const contents: Result<Contents> = summary
          ? { ok: true, value: JSON.parse(summary) as Contents }
          : await this.summarize(id);
        return {
          id,
          title,
          revision,
          updatedAt,
          contents: contents.ok ? contents.value : null,
          problem: contents.ok ? null : contents.error,
        };
      }),
    );
  }

  /**
   * Works out what the list shows of a song and keeps it; a document that cannot be read is tried again the next time.
   */
  private async summarize(id: string): Promise<Result<Contents>> {
    const { document } = await this.row(this.db, id);
    const song = Song.parse(document);
    if (!song.ok) return song;
    const contents = contentsOf(song.value);
    await this.db<Row>("songs")
      .where({ id })
      .update({ summary: JSON.stringify(contents) });
    return { ok: true, value: contents };
  }

  /** The stored document as it stands, readable or not. */
  async document(id: string): Promise<{ title: string; document: string }> {
    return this.row(this.db, id);
  }

  async get(id: string): Promise<Stored> {
    const row = await this.row(this.db, id);
    return { song: read(row.document), revision: row.revision };
  }

  /** Stores a new song. An id of its own is given unless `keepId` asks for the document's (demo songs). */
  async create(song: Song, keepId = false): Promise<Stored> {
    const id = keepId ? song.id : randomUUID();
    const document = { ...song, id };
    const at = this.now();
    await this.inOne(async (tx) => {
      await tx<Row>("songs").insert({
        id,
        title: song.title,
        revision: 1,
        document: JSON.stringify(document),
        summary: JSON.stringify(contentsOf(song)),
        created_at: at,
        updated_at: at,
        deleted_at: null,
      });
      await tx("revisions").insert({
        song_id: id,
        revision: 1,
        document: JSON.stringify(document),
        name: null,
        created_at: at,
      });
    });
    return { song: document, revision: 1 };
  }

  /**
   * Replaces the document if it is still at the given revision and answers with the new one; otherwise refuses and
   * hands back what is stored.
   */
  async save(id: string, based: number, song: Song): Promise<number> {
    return this.inOne(async (tx) => {
      const row = await this.row(tx, id);
      if (row.revision !== based)
        throw new HttpProblem(
          409,
          "revision.stale",
          `The song was changed elsewhere: it is at revision ${row.revision}, the edit was based on ${based}`,
          { hint: "Compare both versions and keep one.", revision: row.revision, current: read(row.document) },
        );
      const revision = based + 1;
      const at = this.now();
      const document = JSON.stringify({ ...song, id });
      await tx<Row>("songs")
        .where({ id })
        .update({ title: song.title, revision, document, summary: JSON.stringify(contentsOf(song)), updated_at: at });
      await tx("revisions").insert({ song_id: id, revision, document, name: null, created_at: at });
      await this.thin(tx, id, at);
      return revision;
    });
  }

  async duplicate(id: string): Promise<Stored> {
    const { song } = await this.get(id);
    return this.create({ ...song, title: `${song.title} (copy)`.slice(0, 200) });
  }

  async remove(id: string): Promise<void> {
    await this.row(this.db, id);
    await this.db<Row>("songs").where({ id }).update({ deleted_at: this.now() });
  }

  async restore(id: string): Promise<void> {
    const count = await this.db<Row>("songs").where({ id }).update({ deleted_at: null });
    if (!count) throw unknown(id);
  }

  async exists(id: string): Promise<boolean> {
    return (await this.db<Row>("songs").where({ id }).first()) !== undefined;
  }

  async revisions(id: string): Promise<RevisionInfo[]> {
    await this.row(this.db, id);
    const rows = (await this.db("revisions")
      .where({ song_id: id })
      .orderBy("revision", "desc")
      .select("revision", "name", "created_at")) as { revision: number; name: string | null; created_at: number }[];
    return rows.map((r) => ({ revision: r.revision, name: r.name, createdAt: r.created_at }));
  }

  async revision(id: string, revision: number): Promise<Song> {
    const row = (await this.db("revisions").where({ song_id: id, revision }).first()) as
      { document: string } | undefined;
    if (!row) throw new HttpProblem(404, "revision.unknown", `The song has no revision ${revision}`);
    return read(row.document);
  }

  async nameRevision(id: string, revision: number, name: string | null): Promise<void> {
    const count = await this.db("revisions").where({ song_id: id, revision }).update({ name });
    if (!count) throw new HttpProblem(404, "revision.unknown", `The song has no revision ${revision}`);
  }

  /**
   * One transaction. Where the disk is full SQLite has ended it by itself, and ending it again fails: what is thrown is
   * what went wrong first.
   */
  private async inOne<T>(run: (tx: Knex.Transaction) => Promise<T>): Promise<T> {
    let cause: unknown;
    try {
      return await this.db.transaction(async (tx) => {
        try {
          return await run(tx);
        } catch (error) {
          cause = error;
          throw error;
        }
      });
    } catch (error) {
      throw cause ?? error;
    }
  }

  /** Of unnamed revisions, all of the last ten minutes stay, then one for each ten minutes of a day, then one a day. */
  private async thin(tx: Knex.Transaction, id: string, at: number): Promise<void> {
    const rows = (await tx("revisions")
      .where({ song_id: id })
      .whereNull("name")
      .where("created_at", "<", at - 10 * MINUTE)
      .orderBy("revision", "desc")
      .select("revision", "created_at")) as { revision: number; created_at: number }[];
    const seen = new Set<string>();
    const drop = rows.filter((r) => {
      const slot =
        at - r.created_at < DAY ? `t${Math.floor(r.created_at / (10 * MINUTE))}` : `d${Math.floor(r.created_at / DAY)}`;
      const first = !seen.has(slot);
      seen.add(slot);
      return !first;
    });
    await this.drop(
      tx,
      id,
      drop.map((r) => r.revision),
    );
    await this.bound(tx, id);
  }

  /** Of what is left the oldest go that do not fit into the room of a song; the newest stays, however large. */
  private async bound(tx: Knex.Transaction, id: string): Promise<void> {
    const rows = (await tx("revisions")
      .where({ song_id: id })
      .whereNull("name")
      .orderBy("revision", "desc")
      .select("revision", tx.raw("length(document) as size"))) as { revision: number; size: number }[];
    let room = this.historyRoom;
    const old = rows.filter(({ size }, i) => (room -= size) < 0 && i > 0);
    await this.drop(
      tx,
      id,
      old.map((r) => r.revision),
    );
  }

  private async drop(tx: Knex.Transaction, id: string, revisions: readonly number[]): Promise<void> {
    if (revisions.length) await tx("revisions").where({ song_id: id }).whereIn("revision", revisions).delete();
  }

  private async row(db: Knex, id: string): Promise<Row> {
    const row = await db<Row>("songs").where({ id }).whereNull("deleted_at").first();
    if (!row) throw unknown(id);
    return row;
  }
}

const unknown = (id: string): HttpProblem =>
  new HttpProblem(404, "song.unknown", `There is no song with the id "${id.slice(0, 60)}"`, {
    hint: "Go back to the list of songs.",
  });

/** Reads a stored document, migrating it to the present version. */
function read(document: string): Song {
  const song = Song.parse(document);
  if (song.ok) return song.value;
  throw new HttpProblem(422, "song.unreadable", `The stored song cannot be read: ${song.error.message}`, {
    hint: "Save it to a file from the list of songs; an earlier version may still be readable.",
  });
}
