// Shared by start, dev and test: checks Node, installs what is missing, and only then. Plain Node, no dependency.
import { execFileSync, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";

export const root = path.join(path.dirname(fileURLToPath(import.meta.url)), "..");
const cache = path.join(root, "node_modules", ".orchard");

export function checkNode() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(
      `Hushed Orchard needs Node 20.19 or newer; this is Node ${process.versions.node}. Install a newer Node ` +
        "and try again.",
    );
    process.exit(1);
  }
}

export const run = (command, args, options = {}) =>
  spawnSync(command, args, { cwd: root, stdio: "inherit", ...options });

const remember = (name, value) => {
  mkdirSync(cache, { recursive: true });
  writeFileSync(path.join(cache, name), value);
};
const remembered = (name) => (existsSync(path.join(cache, name)) ? readFileSync(path.join(cache, name), "utf8") : "");

/**
 * Where the headers of this very Node stand on the machine, as its own packages and archives bring them: the database
 * driver is compiled with these, so that nothing but the registry has to be reached.
 */
function nodeHeaders() {
  const prefix = path.join(path.dirname(process.execPath), "..");
  const file = path.join(prefix, "include", "node", "node_version.h");
  if (!existsSync(file)) return undefined;
  const text = readFileSync(file, "utf8");
  const number = (name) => new RegExp(`^#define NODE_${name}_VERSION (\\d+)`, "m").exec(text)?.[1];
  const version = ["MAJOR", "MINOR", "PATCH"].map(number).join(".");
  return version === process.versions.node ? prefix : undefined;
}

/** Installs the packages when the lock file is not the one they were installed from. */
export function installPackages() {
  const hash = createHash("sha256")
    .update(readFileSync(path.join(root, "package-lock.json")))
    .update(process.versions.modules)
    .digest("hex");
  const driver = existsSync(
    path.join(root, "node_modules", "better-sqlite3", "build", "Release", "better_sqlite3.node"),
  );
  if (driver && remembered("lock") === hash) return;
  // Somebody ran npm themselves: npm writes its own copy of the lock file when it has finished.
  const own = path.join(root, "node_modules", ".package-lock.json");
  if (driver && existsSync(own) && statSync(own).mtimeMs >= statSync(path.join(root, "package-lock.json")).mtimeMs) {
    remember("lock", hash);
    return;
  }
  console.log("Installing packages (a few minutes the first time: the database driver is compiled) …");
  const headers = process.env.npm_config_nodedir ?? nodeHeaders();
  const env = headers ? { ...process.env, npm_config_nodedir: headers } : process.env;
  const result = run("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"], { env });
  if (result.status !== 0) {
    console.error(
      "npm could not install the packages. Check the connection to the registry, and that python3, make and a " +
        "C++ compiler are there.",
    );
    process.exit(1);
  }
  remember("lock", hash);
}

/** Hash over names, sizes and times of the sources of the web application. */
function sourceHash() {
  const hash = createHash("sha256");
  const visit = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => a.name.localeCompare(b.name))) {
      const file = path.join(folder, entry.name);
      if (entry.isDirectory()) visit(file);
      else hash.update(`${file}:${statSync(file).size}:${statSync(file).mtimeMs}`);
    }
  };
  for (const folder of ["core/src", "web", "shared"]) visit(path.join(root, folder));
  for (const file of ["index.html", "vite.config.ts", "package-lock.json"])
    hash.update(readFileSync(path.join(root, file)));
  return hash.digest("hex");
}

/** Builds the web application when a source changed since the last build. */
export function buildWeb() {
  const hash = sourceHash();
  if (remembered("build") === hash && existsSync(path.join(root, "dist", "index.html"))) return;
  console.log("Building the application …");
  const result = run(process.execPath, [
    path.join("node_modules", "vite", "bin", "vite.js"),
    "build",
    "--logLevel",
    "error",
  ]);
  if (result.status !== 0) {
    console.error("The application could not be built; see the messages above.");
    process.exit(1);
  }
  remember("build", hash);
}

/** Installs a package of Debian where that is possible. */
function installDebian(name, hint) {
  console.log(`Installing ${name} …`);
  try {
    const sudo = process.getuid?.() === 0 ? [] : ["sudo"];
    const apt = (...args) =>
      execFileSync([...sudo, "apt-get"][0], [...sudo, "apt-get", ...args].slice(1), {
        stdio: ["ignore", "ignore", "inherit"],
        env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
      });
    apt("update", "-qq");
    apt("install", "-y", "-qq", "--no-install-recommends", name);
  } catch {
    console.error(`${name} could not be installed. ${hint}`);
  }
}

/**
 * Path of a Chromium. The one without a window does the same in two thirds of the time: Debian's package of it is
 * installed where it is not there and that is possible; otherwise any other Chromium will do.
 */
export function findChromium() {
  const first = (...names) => names.find((name) => name && existsSync(name));
  const chosen = () => first(process.env.CHROMIUM, "/usr/bin/chromium-headless-shell");
  const other = () => first("/usr/bin/chromium", "/usr/bin/chromium-browser", "/usr/bin/google-chrome");
  if (!chosen())
    installDebian(
      "chromium-headless-shell",
      other() ? "Another Chromium is used." : "Install Chromium or set CHROMIUM to its path.",
    );
  return chosen() ?? other();
}

/** The validator that reads a written score against its document type. */
export function findXmllint() {
  const place = "/usr/bin/xmllint";
  if (!existsSync(place)) installDebian("libxml2-utils", "The validity of MusicXML files is not tested without it.");
  return existsSync(place) ? place : undefined;
}
