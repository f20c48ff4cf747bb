/** What is known of who sings: ranges, keys, breaths, contours, pages. */
export * from "./breaths";
export * from "./caution";
export * from "./contour";
export * from "./fit";
export * from "./moved";
export * from "./page";
export * from "./range";
export * from "./shapes";
export * from "./sung";
export * from "./transpose";
