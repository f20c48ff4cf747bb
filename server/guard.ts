import { timingSafeEqual } from "node:crypto";
import type { RequestHandler } from "express";
import { HttpProblem } from "./problem";

const LOOPBACK = new Set(["127.0.0.1", "localhost", "[::1]"]);
export const isLoopback = (host: string): boolean => LOOPBACK.has(host) || host === "::1";

const hostname = (host: string): string => host.replace(/:\d+$/, "").toLowerCase();

/**
 * Refuses requests that were not meant for this server: a foreign Host (DNS rebinding) or, for anything that writes, a
 * foreign Origin. `extra` lists names allowed beside the loopback ones.
 */
export const checkOrigin =
  (extra: readonly string[]): RequestHandler =>
  (request, _response, next) => {
    const allowed = (name: string) => LOOPBACK.has(name) || extra.includes(name);
    const host = request.headers.host ?? "";
    if (!allowed(hostname(host)))
      throw new HttpProblem(403, "host.foreign", `This server does not answer for the host "${host}"`, {
        hint: "Open it under the address it printed.",
      });
    const { origin } = request.headers;
    // "null" and what cannot be read as an address are foreign too.
    if (origin !== undefined && !(URL.canParse(origin) && new URL(origin).host === host))
      throw new HttpProblem(403, "origin.foreign", `Requests from ${origin} are refused`, {
        hint: "Use the application's own page.",
      });
    next();
  };

/** Asks for the token as a cookie or once as `?token=`, from which the cookie is set. */
export const checkToken =
  (token: string): RequestHandler =>
  (request, response, next) => {
    const given =
      typeof request.query.token === "string"
        ? request.query.token
        : (/(?:^|;\s*)token=([^;]+)/.exec(request.headers.cookie ?? "")?.[1] ?? "");
    const a = Buffer.from(given.padEnd(token.length).slice(0, 200));
    const b = Buffer.from(token.padEnd(a.length));
    if (a.length !== b.length || !timingSafeEqual(a, b))
      throw new HttpProblem(401, "token.missing", "This server asks for its token", {
        hint: "Open the address it printed at the start, with ?token=…",
      });
    if (request.query.token) response.cookie("token", token, { httpOnly: true, sameSite: "strict" });
    next();
  };
