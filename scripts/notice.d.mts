import type { Plugin } from "vite";

/** The plugin of the build that writes down what ships. */
export function notice(options?: { writes?: boolean }): Plugin;
