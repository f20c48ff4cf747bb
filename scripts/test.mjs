// Type check, lint, Jest and Playwright; the last line adds them up.
import { spawn } from "node:child_process";
import { mkdtempSync, existsSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { LEAST, testShare } from "./share.mjs";
import { buildWeb, checkNode, findChromium, findXmllint, installPackages, root } from "./setup.mjs";

checkNode();
installPackages();
const chromium = findChromium();
findXmllint();
const out = mkdtempSync(path.join(tmpdir(), "orchard-test-"));
const bin = (...parts) => path.join("node_modules", ...parts);
let passed = 0;
let failed = 0;

const took = [];

/** Runs a tool; what it says comes when it has ended where another one runs beside it. */
function ended(args, env, quiet) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: quiet ? "pipe" : "inherit",
    });
    const said = [];
    for (const stream of [child.stdout, child.stderr]) stream?.on("data", (text) => said.push(text));
    child.on("error", () => resolve({ status: 1, said }));
    child.on("close", (status) => resolve({ status, said }));
  });
}

async function step(title, args, { count, env = {}, quiet = false } = {}) {
  if (!quiet) console.log(`\n— ${title}`);
  const begun = Date.now();
  const result = await ended(args, env, quiet);
  if (quiet) console.log(`\n— ${title}\n${Buffer.concat(result.said).toString()}`.trimEnd());
  const [good, bad] = count ? count() : [result.status === 0 ? 1 : 0, result.status === 0 ? 0 : 1];
  passed += good;
  took.push(`${title.toLowerCase()} ${Math.round((Date.now() - begun) / 1000)} s`);
  // A runner that fails without a failing test (it could not start) counts as one failure.
  failed += bad || (result.status === 0 ? 0 : 1);
}

const read = (name) =>
  existsSync(path.join(out, name)) ? JSON.parse(readFileSync(path.join(out, name), "utf8")) : null;
// These two use one core each.
await Promise.all([
  step("Type check", [bin("typescript", "bin", "tsc"), "--noEmit"], { quiet: true }),
  step("Lint", [bin("eslint", "bin", "eslint.js"), "."], { quiet: true }),
]);
await step("Jest", [bin("jest", "bin", "jest.js"), "--json", `--outputFile=${path.join(out, "jest.json")}`], {
  count: () => {
    const report = read("jest.json");
    return report ? [report.numPassedTests, report.numFailedTests + report.numRuntimeErrorTestSuites] : [0, 1];
  },
});
buildWeb();
if (!chromium) {
  console.error("There is no Chromium: the tests of the application did not run.");
  failed++;
} else
  await step("Playwright", [bin("@playwright", "test", "cli.js"), "test"], {
    count: () => {
      const report = read("playwright.json");
      if (!report) return [0, 1];
      const { expected, unexpected, flaky } = report.stats;
      // The list above names them: on a busy machine a second try is allowed, but not in silence.
      if (flaky) console.log(`${flaky} passed only at the second try: look at what they waited for.`);
      return [expected + flaky, unexpected];
    },
    env: { CHROMIUM: chromium, PLAYWRIGHT_JSON_OUTPUT_NAME: path.join(out, "playwright.json") },
  });
const { tests, all, share } = testShare();
const enough = share >= LEAST;
if (enough) passed++;
else failed++;
console.log(
  `\nTests are ${tests} of ${all} lines of TypeScript, ${(share * 100).toFixed(1)} ` +
    `%${enough ? "" : `: at least ${LEAST * 100} % are asked`}.`,
);
console.log(`Time: ${took.join(", ")}.`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
