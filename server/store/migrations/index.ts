import { sure } from "../../../core/src/index";
import type { Knex } from "knex";
import * as songs from "./001_songs";
import * as summaries from "./002_summaries";
import * as listed from "./003_listed";

/** All migrations in order; a new one is one file and one line here. */
const LIST: [name: string, migration: Knex.Migration][] = [
  ["001_songs", songs],
  ["002_summaries", summaries],
  ["003_listed", listed],
];

export const migrations: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(LIST.map(([name]) => name)),
  getMigrationName: (name) => name,
  getMigration: (name) => Promise.resolve(sure(LIST.find(([n]) => n === name))[1]),
};
