import { COSTS, type CounterStyle } from "../style";

export const species: CounterStyle = {
  id: "species",
  title: "First species, strict",
  explanation:
    "One note against every note of the tune, by the rules of strict counterpoint: consonances only, no parallel or direct fifths and octaves, perfect at both ends, contrary motion where it can be. The far end: it hears the tune and the key, not the chords.",
  source: "J. J. Fux, Gradus ad Parnassum (1725), from memory",
  targets: { strict: true },
  costs: COSTS,
  uses: ["side"],
  slots: (ctx) =>
    ctx.tune
      .filter((n, i) => n.start >= 0 && n.start !== ctx.tune[i + 1]?.start)
      .map((n, i, all) => ({
        start: n.start,
        duration: Math.min(n.duration, (all[i + 1]?.start ?? Infinity) - n.start),
        use: "species" as const,
      })),
  nothing: () => ({ message: "There is no tune to set notes against", hint: "Write the tune first, or choose another line." }),
};
