import { bundle, bundleServer } from "../scripts/bundle.mjs";
import { storm as run } from "../web/test/storm";

/** Over a thousand saves of two writers over a line with faults to a server that is killed again and again. */
export async function storm(): Promise<void> {
  process.env.SERVER = bundleServer();
  process.env.STORM = bundle("web/test/stormWriter.ts");
  const { acknowledged, conflicts, kills, faults, made, stored } = await run({ edits: 700, every: 1500, seed: 9 });
  console.log(
    `storm: ${acknowledged} saves acknowledged, ${kills} kills, ${stored} of ${made} edits stored, ` +
      `${conflicts} conflicts; on the line ${Object.entries(faults)
        .map(([what, n]) => `${what} ${n}`)
        .join(", ")}`,
  );
}
