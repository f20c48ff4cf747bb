import { createHash } from "node:crypto";
import { mkdirSync, existsSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";

/**
 * What was written once, was read by a musician and was found good. Lines of text, by their place; a change of any cost
 * or limit shows here as a change of the music, to be read again. `KEEP=1 npx jest golden` keeps what is written now.
 */
export function expectKept(name: string, found: Readonly<Record<string, string | readonly string[]>>): void {
  const file = path.join(process.cwd(), "core", "test", "fixtures", "kept", `${name}.json`);
  if (process.env.KEEP) {
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, `${JSON.stringify(found, null, 1)}\n`);
  }
  const kept = existsSync(file) ? (JSON.parse(readFileSync(file, "utf8")) as unknown) : `${name} is not kept yet`;
  expect(found).toEqual(kept);
}

/**
 * The mark of something too long to be kept whole: of a wide sweep what is found is kept as marks, one for each case,
 * so that any change of it shows and says which case it was.
 */
export const markOf = (found: unknown): string =>
  createHash("sha256")
    .update(typeof found === "string" ? found : JSON.stringify(found))
    .digest("hex")
    .slice(0, 12);
