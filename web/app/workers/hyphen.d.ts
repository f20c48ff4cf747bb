/** The package has no types of its own: each language is an object of functions over its patterns. */
declare module "hyphen/*" {
  const language: { hyphenateSync(text: string, options?: { hyphenChar?: string; minWordLength?: number }): string };
  export default language;
}
