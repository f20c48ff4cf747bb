import { noteOf } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { leadingToneOf } from "../../../../hear/harmony/tendency";
import type { Rule } from "../../rule";
import { soundTwice } from "./twice";

export const doubledLeadingTone: Rule = {
  id: "doubled-leading-tone",
  title: "Leading tone twice",
  family: "voices",
  explanation:
    "Two lines sing or play the leading tone at once: both want to rise, and if both do they move in parallel " +
    "octaves. Lines that double each other throughout are one voice.",
  source: "Kostka & Payne, Tonal Harmony",
  severity: { chorale: "fault", band: "off", jazz: "off", loop: "off" },
  find: (ctx) =>
    soundTwice(
      ctx,
      ({ chord }) => {
        const leads = leadingToneOf(ctx.key, chord);
        return leads === null ? [] : [leads];
      },
      {
        least: 0,
        say: (have, { note }, { start }) =>
          `${have} the leading tone ${noteOf(note.pitch)} at once at ${positionText(ctx.meter, start)}.`,
      },
    ),
};
