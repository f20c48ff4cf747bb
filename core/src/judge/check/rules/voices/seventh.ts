import { seventhOf } from "../../../../hear/harmony/tendency";
import type { Rule } from "../../rule";
import { notFallen } from "./moves";

export const seventh: Rule = {
  id: "seventh",
  title: "Seventh does not fall",
  family: "voices",
  explanation:
    "The seventh of a chord wants to fall by step, or to stay where the next chord holds it. Counts where the " +
    "next chord has the tone below it.",
  source: "Kostka & Payne, Tonal Harmony",
  severity: { chorale: "fault", band: "off", jazz: "note", loop: "off" },
  find: (ctx) => notFallen(ctx, seventhOf, "the seventh"),
};
