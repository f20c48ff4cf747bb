import { fail, type Result } from "../../base/result";
import { withArticle } from "../../theory/words/english";
import type { Opened } from "../../song/document";
import type { Format } from "../format";
import { midiFile } from "./midiFile";
import { musicXmlFile } from "./musicXmlFile";
import { songFile } from "./songFile";

/** All formats, in the order in which they are offered; a new one is one file and one line here. */
export const FORMATS: readonly Format[] = [midiFile, musicXmlFile, songFile];

/** Those that can be opened. */
export const READABLE: readonly Format[] = FORMATS.filter((f) => f.read);

/** The format that a file name ends in. */
export function formatOf(name: string): Format | undefined {
  const ending = /\.([^./\\]+)$/.exec(name)?.[1]?.toLowerCase() ?? "";
  return FORMATS.find((f) => f.extensions.includes(ending));
}

/** Endings of files as a file picker wants them: ".mid,.midi,audio/midi". */
export const pickerText = (formats: readonly Format[]): string =>
  formats.flatMap((f) => [...f.extensions.map((e) => `.${e}`), f.media]).join(",");

/**
 * A file as a song of its own, by what its name ends in, with what was mended in it, in sentences. Errors:
 * `format.unknown` where nothing reads such files, and those of its reader.
 */
export function readFile(name: string, bytes: Uint8Array): Result<Opened> {
  const format = formatOf(name);
  if (format?.read) return format.read(bytes, name);
  const known = READABLE.flatMap((f) => f.extensions.map((e) => `.${e}`)).join(", ");
  const what = format ? `${withArticle(format.title.toLowerCase())} (${format.extensions[0]})` : "such a file";
  return fail("format.unknown", `"${name}": ${what} cannot be opened`, { hint: `Files that can: ${known}.` });
}
