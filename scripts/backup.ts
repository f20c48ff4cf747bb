/** Writes all songs to one file, also while the server runs: `npm run backup`, with DATA_DIR where that is set. */
import { existsSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { backUp } from "../server/store/backup";
import { connect } from "../server/store/database";
import { startFailure } from "../server/store/failures";

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), "..");
const folder = process.env.DATA_DIR ?? path.join(root, "data");

if (!existsSync(path.join(folder, "orchard.sqlite"))) {
  console.error(`There are no songs in ${folder}.`);
  process.exit(1);
}
const db = connect(folder);
try {
  console.log(`Written: ${await backUp(db, folder)}`);
} catch (error) {
  console.error(startFailure(error, folder));
  process.exitCode = 1;
} finally {
  await db.destroy();
}
