/** What is found in a song, and what is to be done about it. */
export { checkSong, createChecker, PROFILE_WORDS, severityOf, type Checker, type CheckScope } from "./check";
export * from "./moment";
export * from "./overview";
export * from "./report";
export * from "./verify";
export { RULES } from "./rules";
export { FAMILIES, type Family, type Finding, type FindingPlace, type Fix, type Rule, type Severity } from "./rule";
