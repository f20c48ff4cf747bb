import { createHash, timingSafeEqual } from "node:crypto";
import { networkInterfaces } from "node:os";
import type { Request, RequestHandler } from "express";
import { rateLimit } from "express-rate-limit";
import { HttpProblem } from "./httpProblem";

const LOOPBACK = new Set(["127.0.0.1", "localhost", "[::1]"]);
export const isLoopback = (host: string): boolean => LOOPBACK.has(host) || host === "::1";

/** Whether a server that listens there is reached under every address of the machine. */
export const isEverywhere = (host: string): boolean => host === "0.0.0.0" || host === "::";

/** The addresses of this machine in its networks, as they stand in an address of a page. */
export const ownAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter((i) => !i.internal)
    .map((i) => (i.family === "IPv6" ? `[${i.address}]` : i.address));

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

/** Whether a text can be a token: printable characters, and at least one that is no space. */
export const isToken = (text: string): boolean => /^[\x20-\x7e]*[\x21-\x7e][\x20-\x7e]*$/.test(text);

/** Texts of any length are compared in the same time. */
const digest = (text: string): Buffer => createHash("sha256").update(text).digest();

/** The token in a cookie header, as it was before it was put there. */
function cookieToken(header: string): string {
  const value = /(?:^|;\s*)token=([^;]*)/.exec(header)?.[1] ?? "";
  try {
    return decodeURIComponent(value);
  } catch {
    return "";
  }
}

/**
 * Asks for the token as a cookie or once as `?token=`, from which the cookie is set. Another token than before refuses
 * the cookies of the old one. Wrong ones are answered a few times a minute for each address, then no longer.
 */
export const checkToken = (token: string): RequestHandler[] => {
  const own = digest(token);
  const isRight = (request: Request): boolean => {
    const { query, headers } = request;
    const given = typeof query.token === "string" ? query.token : cookieToken(headers.cookie ?? "");
    return timingSafeEqual(digest(given), own);
  };
  return [
    limited(WRONG_TOKENS, { skip: isRight }),
    (request, response, next) => {
      if (!isRight(request))
        throw new HttpProblem(401, "token.missing", "This server asks for its token", {
          hint: "Open the address it printed at the start, with ?token=…",
        });
      if (request.query.token) response.cookie("token", token, { httpOnly: true, sameSite: "strict" });
      next();
    },
  ];
};

/** Requests of one address in a minute, and wrong tokens: far more than anybody needs who works with it. */
const REQUESTS = 1200;
const WRONG_TOKENS = 20;

/** Refuses what one address asks for too often. */
const limited = (most: number, more: { skip?(request: Request): boolean } = {}): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit: most,
    standardHeaders: "draft-8",
    legacyHeaders: false,
    ...more,
    handler: (_request, _response, next) => {
      next(
        new HttpProblem(429, "requests.many", "Too many requests came from this address", {
          hint: "Wait a minute, then try again.",
        }),
      );
    },
  });

export const limitRequests = (): RequestHandler => limited(REQUESTS);

/** How deep lists and objects of a request may lie in each other; a song needs about ten. */
const DEEPEST = 64;

/** Refuses a body that is nested too deep before it is read: reading it could take the server down. */
export function checkDepth(_request: unknown, _response: unknown, body: Buffer): void {
  let [depth, inText] = [0, false];
  for (let i = 0; i < body.length; i++) {
    const c = body[i];
    if (c === QUOTE) inText = !inText;
    else if (c === BACKSLASH && inText) i++;
    else if (!inText && (c === OPEN_LIST || c === OPEN_OBJECT) && ++depth > DEEPEST)
      throw new HttpProblem(400, "body.deep", `The request is nested more than ${DEEPEST} levels deep`);
    else if (!inText && (c === CLOSE_LIST || c === CLOSE_OBJECT)) depth--;
  }
}
const [QUOTE, BACKSLASH, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [0x22, 0x5c, 0x5b, 0x5d, 0x7b, 0x7d];
