import { HttpProblem } from "../httpProblem";

/** Why the database could not be opened, where that can be said before it is tried. */
export class StartProblem extends Error {}

const codeOf = (error: unknown): string => String((error as { code?: unknown } | null)?.code ?? "");

/** What SQLite and the system call a full disk. */
const FULL = new Set(["SQLITE_FULL", "ENOSPC", "EDQUOT"]);
const isFull = (error: unknown): boolean => FULL.has(codeOf(error)) || /database or disk is full/.test(String(error));

/** A full disk while the server runs, as an answer; null for any other error. */
export const diskProblem = (error: unknown): HttpProblem | null =>
  isFull(error)
    ? new HttpProblem(507, "disk.full", "The disk of the server is full; nothing was changed", {
        hint: "Make room there. What was not saved is kept in this browser and sent again by itself.",
      })
    : null;

/** Why the server cannot start, in sentences, with what to do. For the person at the server: it names the folder. */
export function startFailure(error: unknown, folder: string): string {
  if (error instanceof StartProblem) return error.message;
  if (isFull(error)) return `The disk that holds ${folder} is full. Make room there, then start again.`;
  const code = codeOf(error);
  if (["EACCES", "EPERM", "EROFS", "SQLITE_READONLY", "SQLITE_CANTOPEN"].some((c) => code.startsWith(c)))
    return (
      `Songs cannot be written to ${folder}. Give the user that runs the server the right to write there, or choose ` +
      "another folder: DATA_DIR=/some/folder npm start"
    );
  if (code === "ENOTDIR" || code === "EEXIST")
    return `${folder} is no folder. Choose another one: DATA_DIR=/some/folder npm start`;
  if (code === "SQLITE_NOTADB" || code.startsWith("SQLITE_CORRUPT")) return damaged(folder);
  return `The songs in ${folder} cannot be opened: ${(error as Error).message}`;
}

/** What to do about a file that is damaged. */
export const damaged = (folder: string): string =>
  `orchard.sqlite in ${folder} is damaged and was left as it is. Put a backup from its folder backups in its ` +
  "place, or move it away to begin with an empty songbook.";
