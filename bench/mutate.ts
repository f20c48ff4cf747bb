/**
 * Changes one decision of the core after another and sees if the tests of its floor notice: `npm run mutate`.
 * `--most 24` mutants at the most, `--seconds 600` in all, `--seed 1`, `--in write/bass` where. A number that
 * has a name or stands in a table is a decision, and so is a comparison or a condition. The sample is the same for a
 * seed; the checkout is never changed: mutants live in a copy.
 */
import { spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { parseArgs } from "node:util";
import ts from "typescript";
import { nth, sure } from "../core/src/base/list";
import { random } from "../core/src/base/random";

/** A place of a source file, and what stands there instead. */
interface Mutant {
  file: string;
  line: number;
  from: number;
  to: number;
  was: string;
  is: string;
}

const COMPARED: Partial<Record<ts.SyntaxKind, string>> = {
  [ts.SyntaxKind.LessThanToken]: "<=",
  [ts.SyntaxKind.LessThanEqualsToken]: "<",
  [ts.SyntaxKind.GreaterThanToken]: ">=",
  [ts.SyntaxKind.GreaterThanEqualsToken]: ">",
  [ts.SyntaxKind.AmpersandAmpersandToken]: "||",
  [ts.SyntaxKind.BarBarToken]: "&&",
};

/** A number that means something by itself: named, or an entry of a table. Steps of a loop and indices do not. */
const isDecision = (node: ts.NumericLiteral): boolean =>
  ts.isVariableDeclaration(node.parent) ||
  ts.isPropertyAssignment(node.parent) ||
  (ts.isBinaryExpression(node.parent) && node.parent.operatorToken.kind in COMPARED);

/** All mutants of a file. */
function mutantsOf(file: string): Mutant[] {
  const text = readFileSync(file, "utf8");
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const found: Mutant[] = [];
  const put = (node: ts.Node, is: string) => {
    const from = node.getStart(source);
    const line = source.getLineAndCharacterOfPosition(from).line + 1;
    found.push({ file, line, from, to: node.end, was: text.slice(from, node.end), is });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isNumericLiteral(node) && isDecision(node))
      put(node, String(Number(node.text) ? Number(node.text) * 1.5 : 1));
    if (ts.isBinaryExpression(node)) {
      const other = COMPARED[node.operatorToken.kind];
      if (other) put(node.operatorToken, other);
    }
    if (ts.isIfStatement(node)) put(node.expression, `!(${node.expression.getText(source)})`);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((e) => e.isFile() && /(?<!\.d)\.ts$/.test(e.name))
    .map((e) => path.join(e.parentPath, e.name))
    .sort();

/** A seeded choice without repeats. */
function sample<T>(list: readonly T[], most: number, seed: number): T[] {
  const chance = random(seed);
  const left = [...list];
  return Array.from({ length: Math.min(most, left.length) }, () =>
    nth(left.splice(Math.floor(chance() * left.length), 1), 0),
  );
}

function copyOf(root: string): string {
  const copy = mkdtempSync(path.join(tmpdir(), "orchard-mutants-"));
  for (const name of [
    "core",
    "demo",
    "bench",
    "docs",
    "scripts",
    "server",
    "shared",
    "web",
    "CONTRIBUTING.md",
    "package.json",
    "jest.config.cjs",
  ])
    cpSync(path.join(root, name), path.join(copy, name), { recursive: true });
  symlinkSync(path.join(root, "node_modules"), path.join(copy, "node_modules"));
  return copy;
}

/** Whether tests pass in a checkout; one that does not end has failed. */
const passes = (cwd: string, tests: readonly string[]): boolean =>
  spawnSync(process.execPath, ["node_modules/jest/bin/jest.js", "--bail", "--silent", ...tests], {
    cwd,
    stdio: "ignore",
    timeout: 240_000,
  }).status === 0;

function main(): void {
  const { values } = parseArgs({
    options: {
      most: { type: "string", default: "24" },
      seconds: { type: "string", default: "600" },
      seed: { type: "string", default: "1" },
      in: { type: "string", default: "" },
    },
  });
  const root = process.cwd();
  const copy = copyOf(root);
  const until = Date.now() + Number(values.seconds) * 1000;
  const source = path.join(copy, "core", "src");
  const all = filesIn(path.join(source, values.in))
    .filter((file) => !/\/(index|public\/\w+)\.ts$/.test(file))
    .flatMap(mutantsOf);
  // A copy in which tests fail by themselves would kill every mutant.
  if (!passes(copy, ["core/test/theory/"])) throw new Error("The tests fail without any change.");
  const survived: string[] = [];
  let tried = 0;
  for (const mutant of sample(all, Number(values.most), Number(values.seed))) {
    if (Date.now() > until) break;
    tried++;
    const whole = readFileSync(mutant.file, "utf8");
    writeFileSync(mutant.file, whole.slice(0, mutant.from) + mutant.is + whole.slice(mutant.to));
    const floor = sure(path.relative(source, mutant.file).split(path.sep)[0]);
    const tests = floor === "base" || floor === "facts" ? "core/test" : `core/test/${floor}/`;
    // What is kept is the quickest to notice; the others run where it does not.
    const passed = passes(copy, [`${tests}.*golden`]) && passes(copy, [tests]);
    writeFileSync(mutant.file, whole);
    const place = `${path.relative(copy, mutant.file)}:${mutant.line}`;
    const change = `${mutant.was.replace(/\s+/g, " ").slice(0, 60)} → ${mutant.is.replace(/\s+/g, " ").slice(0, 60)}`;
    if (passed) survived.push(`${place}  ${change}`);
    console.log(`${passed ? "survived" : "killed  "}  ${place}  ${change}`);
  }
  rmSync(copy, { recursive: true, force: true });
  const killed = tried - survived.length;
  console.log(
    `\n${killed} of ${tried} killed, ${Math.round((100 * killed) / Math.max(1, tried))} %; ${all.length} in all.`,
  );
}

main();
