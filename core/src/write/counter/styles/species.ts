import { intervalWords } from "../../../theory/pitch/interval";
import { capital } from "../../../theory/words/english";
import { noteOf } from "../../../theory/pitch/pitch";
import { because } from "../../../song/reasons";
import { speciesNode, speciesStep, speciesTurn } from "../species";
import { COSTS, type CounterStyle } from "../style";

export const species: CounterStyle = {
  id: "species",
  title: "First species, strict",
  explanation:
    "One note against every note of the tune, by the rules of strict counterpoint: consonances only, no " +
    "parallel or direct fifths and octaves, perfect at both ends, contrary motion where it can be. The far " +
    "end: it hears the tune and the key, not the chords.",
  source: "J. J. Fux, Gradus ad Parnassum (1725), from memory",
  targets: { strict: true },
  costs: COSTS,
  uses: ["side"],
  rules: { node: speciesNode, step: speciesStep, turn: speciesTurn },
  withoutChords: true,
  reason({ ctx, note: { start, midi } }) {
    const tune = ctx.tuneAt(start);
    if (!tune) return null;
    return because("species", {
      interval: capital(intervalWords(Math.abs(midi - tune.midi))),
      side: midi < tune.midi ? "under" : "over",
      pitch: noteOf(tune.pitch),
      part: ctx.against,
    });
  },
  slots: (ctx) =>
    ctx.tune
      .filter((n, i) => n.start >= 0 && n.start !== ctx.tune[i + 1]?.start)
      .map((n, i, all) => ({
        start: n.start,
        duration: Math.min(n.duration, (all[i + 1]?.start ?? Infinity) - n.start),
      })),
  nothing: () => ({
    message: "There is no tune to set notes against",
    hint: "Write the tune first, or choose another line.",
  }),
};
