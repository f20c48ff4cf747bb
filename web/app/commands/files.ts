import { Format, type Song } from "../../../core/src/index";
import { tell } from "../store/notice";
import { api, ApiProblem } from "../api";

/** How long a link to a file is kept, in milliseconds. */
const KEPT = 1000;

/** Hands a file to the browser to be saved. */
export function download(name: string, data: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([data], { type }));
  Object.assign(document.createElement("a"), { href: url, download: name }).click();
  setTimeout(() => URL.revokeObjectURL(url), KEPT);
}

/** A file name from a song's title. */
export function fileName(song: Song, ending: string): string {
  const name = song.title
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .toLowerCase();
  return `${name || "song"}.${ending}`;
}

/**
 * Reads a file of any format that can be opened and stores it as a new song; tells what was mended in it, and returns
 * its id or says what is wrong.
 */
export async function importFile(file: File): Promise<string> {
  const read = Format.read(file.name, new Uint8Array(await file.arrayBuffer()));
  if (!read.ok)
    throw new ApiProblem(422, read.error.code, `${file.name}: ${read.error.message}`, { hint: read.error.hint });
  const { song, mended } = read.value;
  const { id } = (await api.create(song)).song;
  if (mended.length)
    tell({
      about: id,
      text: `${file.name} was opened, but not everything in it could be read. The file is as it was; here:`,
      list: mended,
    });
  return id;
}
