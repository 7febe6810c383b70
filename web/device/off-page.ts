import { type Remote, wrap } from "comlink";

/** What would work something out off the page did not load, or broke. */
export class NotWorkedOut extends Error {
  constructor() {
    super("What works this out could not be loaded. Nothing was changed; try again in a moment.");
    this.name = "NotWorkedOut";
  }
}

/** A worker that is there once something is asked of it. */
export interface OffPage<T> {
  /**
   * Asks the worker. One that does not load, or breaks on the way, is tried once more, with a new one.
   * @throws NotWorkedOut when that does not help; what the worker itself throws as it is
   */
  ask<R>(work: (worker: Remote<T>) => Promise<R>): Promise<R>;
  /** Ends the worker; what it was asked and has not answered is let go. */
  end(): void;
}

interface Running<T> {
  readonly worker: Worker;
  /** Kept as long as the worker: letting it go closes the worker's ear. */
  readonly remote: Remote<T>;
  readonly broken: Promise<never>;
}

/** @param make `() => new Worker(new URL(…, import.meta.url), { type: "module" })`, written out, so that the build finds it */
export function offPage<T>(make: () => Worker): OffPage<T> {
  let running: Running<T> | undefined;
  const end = () => {
    running?.worker.terminate();
    running = undefined;
  };
  const begin = (): Running<T> => {
    const worker = make();
    const broken = new Promise<never>((_, failed) => {
      worker.addEventListener("error", () => {
        if (running?.worker === worker) end();
        failed(new NotWorkedOut());
      });
    });
    // Whoever waits hears of it; when no one does, nothing is lost.
    broken.catch(() => undefined);
    return { worker, remote: wrap<T>(worker), broken };
  };
  const once = <R>(work: (worker: Remote<T>) => Promise<R>): Promise<R> => {
    running ??= begin();
    return Promise.race([work(running.remote), running.broken]);
  };
  return {
    ask: (work) =>
      once(work).catch((error: unknown) => {
        if (error instanceof NotWorkedOut) return once(work);
        throw error;
      }),
    end,
  };
}
