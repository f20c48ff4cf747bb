import { existsSync } from "node:fs";
import path from "node:path";
import express, { type Express } from "express";
import compression from "compression";
import helmet from "helmet";
import { isPage } from "../shared/pages";
import { checkDepth, checkOrigin, checkToken, limitRequests } from "./guard";
import { HttpProblem } from "./httpProblem";
import { problemHandler } from "./problem";
import { songRoutes } from "./routes/songs";
import type { SongStore } from "./store/songs";

export interface AppOptions {
  store: SongStore;
  /** Folder of the built web application; without it only the API is served. */
  web?: string;
  /** Host names answered beside the loopback ones. */
  hosts?: string[];
  /** Asked for when the server listens beyond this machine. */
  token?: string;
}

const MAX_BODY = "8mb";

/** The server as a function of its store; listening is left to main.ts. */
export function createApp({ store, web, hosts = [], token }: AppOptions): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'"],
          imgSrc: ["'self'", "data:"],
          fontSrc: ["'self'", "data:"],
          mediaSrc: ["'self'", "blob:", "data:"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", "blob:"],
          objectSrc: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(checkOrigin(hosts));
  if (token) app.use(limitRequests(), checkToken(token));
  app.use(compression());
  app.use(express.json({ limit: MAX_BODY, verify: checkDepth }));
  app.get("/api/health", (_request, response) => void response.json({ ok: true }));
  app.use("/api/songs", songRoutes(store));
  app.use("/api", (request) => {
    throw new HttpProblem(404, "route.unknown", `There is nothing at ${request.originalUrl.slice(0, 100)}`);
  });
  if (web && existsSync(path.join(web, "index.html"))) {
    app.use("/assets", express.static(path.join(web, "assets"), { immutable: true, maxAge: "1y", fallthrough: false }));
    app.use(express.static(web));
    app.get("/{*path}", (request, response) => {
      const { path: asked } = request;
      // A browser is shown a page that says so; a program is told in its own way.
      if (!isPage(asked) && request.accepts(["json", "html"]) !== "html")
        throw new HttpProblem(404, "page.unknown", `There is no page ${asked.slice(0, 100)}`);
      response.status(isPage(asked) ? 200 : 404).sendFile(path.join(web, "index.html"));
    });
  }
  app.use(problemHandler(MAX_BODY));
  return app;
}
