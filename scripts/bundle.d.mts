/** Bundles a program (packages stay outside) and returns the path of the script. `bundle("scripts/check.ts")` */
export function bundle(entry: string): string;
/** Bundles the server (packages stay outside) and returns the path of the script. */
export function bundleServer(): string;
/** Bundles what tests of the application need of core, as the script `KIT`. */
export function bundleKit(): string;
export const KIT: string;
