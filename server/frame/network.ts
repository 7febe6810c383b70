import { existsSync, readFileSync } from "node:fs";
import type { Request, RequestHandler } from "express";
import { HttpProblem } from "./problem.ts";

/** Where the application listens, and what it is called there. */
export interface Network {
  /** The address of the machine's network that it listens on. */
  readonly host: string;
  /** What a browser on the school's network types; undefined where it answers on its own machine alone. */
  readonly origin: URL | undefined;
  /** The certificate with which it speaks TLS itself. */
  readonly tls: { readonly cert: Buffer; readonly key: Buffer } | undefined;
  /** Addresses of the proxy that speaks TLS in front of it, as Express takes them. */
  readonly proxy: string | undefined;
}

/** It cannot listen as it was told to, for a reason that can be told in a sentence. */
export class CannotListen extends Error {
  constructor(message: string) {
    super(message);
    this.name = "CannotListen";
  }
}

/** This machine alone. */
export const onThisMachine: Network = { host: "127.0.0.1", origin: undefined, tls: undefined, proxy: undefined };

const loopback = /^(?:::ffff:)?127\.|^::1$/;
const local = /^(?:([a-z0-9-]{1,63})\.)?(?:localhost|127\.0\.0\.1|\[::1\])(?::\d+)?$/;

/**
 * Reads what the environment says of the network: KEEN_HOST, KEEN_ORIGIN, KEEN_TLS_CERT and KEEN_TLS_KEY, KEEN_PROXY.
 * @throws CannotListen when what it says would send names of children without TLS, or does not fit together
 */
export function networkOf(env: Readonly<Record<string, string | undefined>>): Network {
  const { KEEN_HOST: host = "127.0.0.1", KEEN_ORIGIN, KEEN_TLS_CERT, KEEN_TLS_KEY, KEEN_PROXY: proxy } = env;
  const beyond = host !== "localhost" && !loopback.test(host);
  if (!KEEN_ORIGIN) {
    if (!beyond && !KEEN_TLS_CERT && !proxy) return onThisMachine;
    throw new CannotListen(
      `${beyond ? `KEEN_HOST says to listen on ${host}, beyond this machine` : "There is a certificate or a proxy"}, and KEEN_ORIGIN does not say what the school types to get there. Set it, for example KEEN_ORIGIN=https://keen.school.example. Nothing was started.`,
    );
  }
  const origin = URL.canParse(KEEN_ORIGIN) ? new URL(KEEN_ORIGIN) : undefined;
  if (origin?.protocol !== "https:" || origin.pathname !== "/")
    throw new CannotListen(
      `KEEN_ORIGIN is ${KEEN_ORIGIN}. It has to be an https address without a path, for example https://keen.school.example: names of children go to other machines under TLS only. Nothing was started.`,
    );
  if (!KEEN_TLS_CERT && !KEEN_TLS_KEY) {
    if (proxy) return { host, origin, tls: undefined, proxy };
    throw new CannotListen(
      "KEEN_ORIGIN is set, and nothing speaks TLS. Name a certificate (KEEN_TLS_CERT and KEEN_TLS_KEY, two files), or the proxy in front that has one (KEEN_PROXY=loopback where it runs on this machine); docs/running.md shows both. Nothing was started.",
    );
  }
  const missing = [KEEN_TLS_CERT, KEEN_TLS_KEY].filter((file) => !file || !existsSync(file));
  if (missing.length > 0)
    throw new CannotListen(
      `TLS takes two files, KEEN_TLS_CERT and KEEN_TLS_KEY, and ${missing[0] ? `${missing[0]} is not there` : "one of them is not named"}. Nothing was started.`,
    );
  const tls = { cert: readFileSync(KEEN_TLS_CERT ?? ""), key: readFileSync(KEEN_TLS_KEY ?? "") };
  return { host, origin, tls, proxy };
}

/** Whether someone at this machine asks it by its own name, and nothing stands between. */
export function isHere({ headers, socket }: Pick<Request, "headers" | "socket">): boolean {
  const passedOn = headers["x-forwarded-for"] !== undefined || headers.forwarded !== undefined;
  return local.test(headers.host ?? "") && loopback.test(socket.remoteAddress ?? "") && !passedOn;
}

/**
 * The name of the school in a host name; null where there is none.
 * @example slugIn(onThisMachine, "orm.localhost:4310") // "orm"
 */
export function slugIn({ origin }: Network, host = ""): string | null {
  const suffix = origin && `.${origin.host}`;
  if (suffix && host.endsWith(suffix)) return host.slice(0, -suffix.length);
  return local.exec(host)?.[1] ?? null;
}

/** The address under which it was asked, one of its own; beyond this machine there is TLS always. */
export function originAsked({ headers: { host = "" } }: Pick<Request, "headers">): string {
  return `${local.test(host) ? "http" : "https"}://${host}`;
}

/**
 * Answers to its own names only: a page elsewhere could point a name of its own here. A write must come from our own pages.
 */
export function onlyOurs(network: Network): RequestHandler {
  const { origin } = network;
  return (request, _response, next) => {
    const { host = "", origin: from } = request.headers;
    const public_ = origin && (host === origin.host || host.endsWith(`.${origin.host}`));
    if (!public_ && !isHere(request))
      throw new HttpProblem(
        403,
        "Not at this address",
        origin
          ? `Keen Sapling answers at ${origin.origin}. Nothing was changed.`
          : "This server answers only to localhost.",
      );
    const writes = request.method !== "GET" && request.method !== "HEAD";
    // A page of another port of this machine is another program's.
    const ours = from === undefined || from === `${public_ ? "https" : "http"}://${host}`;
    if (writes && (!ours || request.headers["sec-fetch-site"] === "cross-site"))
      throw new HttpProblem(
        403,
        "Not from our own pages",
        "A page from elsewhere may not change anything here. Nothing was changed.",
      );
    next();
  };
}
