import { breachOf } from "../integrity";
import { SongFields } from "./song";

export * from "./scalars";
export * from "./material";
export * from "./playing";
export * from "./song";
export { CompPlaying } from "../comp/kinds";
export type { Drum } from "../../theory/instrument/drums";

/** A whole song: its fields, and what holds between them. */
export const SongSchema = SongFields.superRefine((song, ctx) => {
  const breach = breachOf(song);
  if (breach) ctx.addIssue({ code: "custom", path: breach.path, message: breach.message });
});
