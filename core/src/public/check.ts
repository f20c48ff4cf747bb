/** What is wrong between instruments, why, and the ways out. */
export {
  checkSong as song,
  createChecker as checker,
  severityOf as severity,
  habitsJudged,
  PROFILE_WORDS,
} from "../judge/check/check";
export { FAMILIES } from "../judge/check/rule";
export { RULES } from "../judge/check/rules";
export { overviewOf as overview } from "../judge/check/overview";
export { checkReport as report, reportAsCsv as csv } from "../judge/check/report";
export { tryFixes, safeFixes, safeSteps } from "../judge/check/verify";
export { momentsOf as moments, momentAt as moment } from "../judge/check/moment";
