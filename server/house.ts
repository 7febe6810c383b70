import type { Router } from "express";
import * as leavers from "./care/leavers.ts";
import * as known from "./checks/known.ts";
import * as presets from "./checks/presets.ts";
import * as checks from "./checks/repository.ts";
import * as away from "./classes/away.ts";
import * as children from "./classes/children.ts";
import * as erasing from "./classes/erasing.ts";
import * as classes from "./classes/repository.ts";
import * as years from "./classes/years.ts";
import * as faces from "./faces/repository.ts";
import type { Actor } from "./frame/actor.ts";
import type { Gate } from "./frame/gate.ts";
import type { LiveHub } from "./frame/live.ts";
import type { Serve } from "./frame/serve.ts";
import type { OpenTries } from "./frame/tries.ts";
import * as grouping from "./groups/grouping.ts";
import * as groups from "./groups/repository.ts";
import type { Jobs } from "./jobs.ts";
import * as ledger from "./ledger/repository.ts";
import * as notes from "./notes/repository.ts";
import * as places from "./orders/places.ts";
import * as orders from "./orders/repository.ts";
import * as taught from "./orders/taught.ts";
import type { Accounts } from "./people/accounts.ts";
import * as devices from "./people/devices.ts";
import type { Entrance } from "./people/entrance.ts";
import * as invitations from "./people/invitations.ts";
import * as people from "./people/members.ts";
import * as outbox from "./people/outbox.ts";
import * as own from "./people/own.ts";
import type { Post } from "./people/post.ts";
import * as trail from "./people/trail.ts";
import * as readings from "./readings/repository.ts";
import * as diary from "./sessions/diary.ts";
import * as planning from "./sessions/planning.ts";
import * as sessions from "./sessions/repository.ts";
import * as routines from "./sessions/routines.ts";
import * as settings from "./settings/repository.ts";
import type { Shipped } from "./shipped.ts";
import * as standings from "./standings/repository.ts";
import type { OpenStore } from "./store/opened.ts";
import { type Repository, repository, scopeOf } from "./store/scope.ts";
import * as texts from "./texts/repository.ts";
import * as week from "./week/repository.ts";
import * as words from "./words/repository.ts";

const repositories = {
  people,
  own,
  invitations,
  outbox,
  devices,
  trail,
  settings,
  classes,
  away,
  children,
  erasing,
  years,
  leavers,
  orders,
  taught,
  places,
  checks,
  presets,
  known,
  faces,
  ledger,
  readings,
  notes,
  standings,
  groups,
  grouping,
  sessions,
  diary,
  routines,
  planning,
  texts,
  words,
  week,
};
type Rooms = typeof repositories;

/** One school: everything that a handler can reach. */
export type School = { readonly [Room in keyof Rooms]: Repository<Rooms[Room]> } & {
  /** What ships with the program, the same for every school. */
  readonly shipped: Shipped;
  /** Does all of the work in one transaction; repositories that are asked in it join it. */
  together<T>(work: () => Promise<T>): Promise<T>;
  /** What was removed for good leaves the journal of an embedded database, and its dumps, at once. */
  leaveNoTrace(): Promise<void>;
  /** Tells something once what was written is kept; never when it was taken back. */
  afterwards(tell: () => void): void;
};

/** All schools of a server, each to be reached by an actor of it. */
export interface House {
  /**
   * The repositories of the actor's school, and nothing else.
   * @example await house.as(actor).groups.list()
   */
  as(actor: Pick<Actor, "schoolId">): School;
}

/** @param store the whole database: it stays in here */
export function openHouse(store: Pick<OpenStore, "db" | "signals" | "dump">, shipped: Shipped): House {
  return {
    as: ({ schoolId }) => {
      const scope = scopeOf(store, schoolId, shipped);
      const school = {
        shipped,
        together: <T>(work: () => Promise<T>) => scope.run(work),
        afterwards: scope.afterwards,
        leaveNoTrace: scope.dump,
      };
      for (const [name, functions] of Object.entries(repositories)) {
        // Most requests need two or three of them.
        Object.defineProperty(school, name, {
          enumerable: true,
          configurable: true,
          get: () => {
            const made = repository(scope, functions);
            Object.defineProperty(school, name, { value: made, enumerable: true });
            return made;
          },
        });
      }
      return school as School;
    },
  };
}

/** What the routes of a domain are made with. A handler gets its school from the frame with each asking. */
export interface Domain {
  readonly serve: Serve<School>;
  readonly live: LiveHub;
  /** Heavy computing, off the request. */
  readonly jobs: Jobs;
  readonly shipped: Shipped;
  /** Who can sign in, of the whole server. */
  readonly accounts: Accounts;
  /** Where letters go. */
  readonly post: Post;
  readonly entrance: Entrance;
  /** Whether cookies may only be sent under TLS. */
  readonly secureCookies: boolean;
  /** Bounds what can be guessed. */
  readonly openTries: OpenTries;
  /** Writes a backup of one school. */
  backup(schoolId: string, out: NodeJS.WritableStream, now: Date): Promise<unknown>;
  /** For the streams, which are no endpoints. */
  readonly streams: {
    readonly router: Router;
    readonly gate: Gate;
    readonly as: House["as"];
    /** Milliseconds after which it is looked again whether who listens still may. */
    readonly lookAgainMs: number;
  };
}
