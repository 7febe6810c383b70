import { existsSync } from "node:fs";
import { join } from "node:path";
import compression from "compression";
import express, { type Express, Router } from "express";
import expressStaticGzip from "express-static-gzip";
import type { Logger } from "pino";
import { careRoutes } from "./care/routes.ts";
import { presetRoutes } from "./checks/preset-routes.ts";
import { sittingRoutes } from "./checks/routes.ts";
import { childRoutes } from "./classes/child-routes.ts";
import { classRoutes } from "./classes/routes.ts";
import { yearRoutes } from "./classes/year-routes.ts";
import { faceRoutes } from "./faces/routes.ts";
import { logged, MOST_BODY, problems } from "./frame/errors.ts";
import { openGate } from "./frame/gate.ts";
import { securityHeaders } from "./frame/headers.ts";
import { openLive } from "./frame/live.ts";
import { type Network, onlyOurs } from "./frame/network.ts";
import { HttpProblem } from "./frame/problem.ts";
import { serving } from "./frame/serve.ts";
import type { Signals } from "./frame/signals.ts";
import type { OpenTries } from "./frame/tries.ts";
import { groupingRoutes } from "./groups/grouping-routes.ts";
import { groupRoutes } from "./groups/routes.ts";
import type { Domain, House, School } from "./house.ts";
import type { Jobs } from "./jobs.ts";
import { ledgerRoutes } from "./ledger/routes.ts";
import { noteRoutes } from "./notes/routes.ts";
import { placeRoutes } from "./orders/place-routes.ts";
import { orderRoutes } from "./orders/routes.ts";
import { deviceRoutes } from "./people/device-routes.ts";
import { doorRoutes } from "./people/door-routes.ts";
import type { Entrance } from "./people/entrance.ts";
import { givenRoutes } from "./people/given-routes.ts";
import { passkeyRoutes } from "./people/passkey-routes.ts";
import { noPost, type Post } from "./people/post.ts";
import { peopleRoutes } from "./people/routes.ts";
import { readingRoutes } from "./readings/routes.ts";
import { blockRoutes } from "./sessions/block-routes.ts";
import { sessionRoutes } from "./sessions/routes.ts";
import { routineRoutes } from "./sessions/routine-routes.ts";
import { reportRoutes } from "./sessions/shared-routes.ts";
import { settingRoutes } from "./settings/routes.ts";
import type { Shipped } from "./shipped.ts";
import { standingRoutes } from "./standings/routes.ts";
import { textRoutes } from "./texts/routes.ts";
import { todayRoutes } from "./today/routes.ts";
import { weekRoutes } from "./week/routes.ts";
import { wordRoutes } from "./words/routes.ts";

export interface AppWanted {
  /** Other processes of the same database. */
  readonly signals: Signals;
  readonly house: House;
  readonly jobs: Jobs;
  readonly accounts: Domain["accounts"];
  /** Where letters go; into the outbox where it is left out. */
  readonly post?: Post;
  /** Who asks, and where links lead. */
  readonly entrance: Entrance;
  readonly network: Network;
  readonly openTries: OpenTries;
  readonly shipped: Shipped;
  /** Writes a backup of one school. */
  readonly backup: Domain["backup"];
  /** The clock comes in, so that tests can hold it. */
  now(): Date;
  readonly log: Logger;
  /** How often it is looked again whether whoever listens to a stream still may; tests wait less. */
  readonly lookAgainMs?: number;
  /** Folder of the built web application; left out in development, where Vite serves it. */
  readonly web?: string | undefined;
}

const LOOK_AGAIN_MS = 10_000;

const domains: readonly ((domain: Domain) => void)[] = [
  // Marks are asked for most, and routes are looked through in their order.
  ledgerRoutes,
  doorRoutes,
  settingRoutes,
  classRoutes,
  childRoutes,
  yearRoutes,
  orderRoutes,
  placeRoutes,
  presetRoutes,
  sittingRoutes,
  givenRoutes,
  faceRoutes,
  standingRoutes,
  groupRoutes,
  groupingRoutes,
  blockRoutes,
  routineRoutes,
  sessionRoutes,
  reportRoutes,
  textRoutes,
  readingRoutes,
  todayRoutes,
  noteRoutes,
  weekRoutes,
  wordRoutes,
  peopleRoutes,
  deviceRoutes,
  passkeyRoutes,
  careRoutes,
];

/** The whole Express application: API under `/api`, the built web application for every other address. */
export function buildApp(wanted: AppWanted): Express {
  const {
    signals,
    backup,
    house,
    jobs,
    accounts,
    post = noPost,
    entrance,
    network,
    openTries,
    shipped,
    now,
    log,
    web,
  } = wanted;
  const app = express();
  if (network.proxy) app.set("trust proxy", network.proxy);
  app.disable("x-powered-by");
  app.use(securityHeaders(network.origin !== undefined), onlyOurs(network), logged(log), compression());
  app.use("/api", (request, response, next) => {
    // The lexicon says nothing about anyone and is large: a browser may keep it and ask whether it is still the same.
    response.setHeader("Cache-Control", request.path === "/lexicon" ? "private, no-cache" : "no-store");
    next();
  });
  app.use("/api", express.json({ limit: MOST_BODY }));
  const router = Router();
  const gate = openGate(entrance, openTries, now);
  const serve = serving<School>({ router, gate, as: house.as, now });
  const live = openLive({
    signals,
    entriesSince: (schoolId, sittingId, from) => house.as({ schoolId }).ledger.entriesSince(sittingId, from),
  });
  const domain: Domain = {
    serve,
    live,
    jobs,
    shipped,
    accounts,
    post,
    entrance,
    openTries,
    secureCookies: network.origin !== undefined,
    backup,
    streams: { router, gate, as: house.as, lookAgainMs: wanted.lookAgainMs ?? LOOK_AGAIN_MS },
  };
  for (const routes of domains) routes(domain);
  app.use(router);
  app.use("/api", () => {
    throw new HttpProblem(404, "Not found", "The server has nothing at this address.");
  });
  if (web && existsSync(web)) serveWeb(app, web);
  app.use(problems(log));
  return app;
}

function serveWeb(app: Express, web: string): void {
  // An address that cannot be read is answered by the application, in words, as any other under which nothing stands.
  app.use((request, response, next) => {
    try {
      decodeURIComponent(request.path);
      next();
    } catch {
      response.setHeader("Cache-Control", "no-cache");
      response.sendFile(join(web, "index.html"));
    }
  });
  const pressed = { enableBrotli: true, orderPreference: ["br" as const], index: false as const };
  const serveStatic = { immutable: true, maxAge: "1y", fallthrough: false };
  app.use("/assets", expressStaticGzip(join(web, "assets"), { ...pressed, serveStatic }));
  app.use(expressStaticGzip(web, { ...pressed, serveStatic: { maxAge: 0 } }));
  app.get(/.*/, (_request, response) => {
    response.setHeader("Cache-Control", "no-cache");
    response.sendFile(join(web, "index.html"));
  });
}
