import { availableParallelism } from "node:os";
import { MessageChannel, type MessagePort, receiveMessageOnPort } from "node:worker_threads";
import type { Request } from "express";
import { Piscina } from "piscina";
import { HttpProblem } from "./problem.ts";

/** What a job is given beside its input. */
export interface JobGiven<Stock> {
  /** What ships with the program, read once a thread. */
  readonly stock: Stock;
  /** A job with the same input and seed has the same output. */
  readonly seed: number;
  /** Says how far it is, from 0 to 1. */
  tell(share: number): void;
}

/** Heavy computing: a pure function of input and seed. Input and output are what can be sent between threads. */
type Job<Stock, Input, Output> = (input: Input, given: JobGiven<Stock>) => Output | Promise<Output>;

/** All jobs of a program by name. */
// biome-ignore lint/suspicious/noExplicitAny: the table is open; `run` reads the types of each job from it
export type JobTable<Stock> = Readonly<Record<string, Job<Stock, any, any>>>;

type InputOf<One> = One extends Job<never, infer Input, unknown> ? Input : never;
type OutputOf<One> = One extends (...asked: never) => infer Output ? Awaited<Output> : never;

/** How a job is followed. */
interface HowToRun {
  /** Called in order with shares from 0 to 1, at most until the job has ended. */
  readonly tell?: (share: number) => void;
  /** Cancels it, waiting or running: `run` throws its reason. */
  readonly signal?: AbortSignal;
}

/** Computes jobs off the thread that answers requests. */
export interface Jobs<Table> {
  /**
   * Computes one job. Jobs that find all threads taken wait in their order.
   * @throws HttpProblem 503 when too many wait; what the job throws; the signal's reason when it is cancelled
   * @example await jobs.run("deal", { sections, children }, seed, { signal })
   */
  run<Name extends keyof Table & string>(
    name: Name,
    input: InputOf<Table[Name]>,
    seed: number,
    how?: HowToRun,
  ): Promise<OutputOf<Table[Name]>>;
  /** Ends the threads; what still runs is given up. */
  close(): Promise<void>;
}

/** What a thread is asked. */
interface Asked {
  readonly name: string;
  readonly input: unknown;
  readonly seed: number;
  /** Where progress goes, when someone follows it. */
  readonly port: MessagePort | undefined;
}

/** One thread stays free for the requests. */
const MOST_THREADS = Math.max(1, Math.min(4, availableParallelism() - 1));
/** Jobs that wait at most: whoever comes then is told to try again rather than kept for minutes. */
const MOST_WAITING = 64;
/** A thread without work keeps what it has read for so long. */
const IDLE_MS = 120_000;

export interface PoolWanted {
  /** The module that calls `workAt`, as a thread is started with it. */
  readonly entry: URL;
  /** Handed to each thread at its start. */
  readonly workerData: unknown;
  readonly threads?: number;
  readonly waiting?: number;
}

/** A bounded pool of threads; the first is started when the first job comes. */
export function poolOfJobs<Table>({ entry, workerData, threads, waiting }: PoolWanted): Jobs<Table> {
  const pool = new Piscina<Asked, unknown>({
    filename: entry.href,
    workerData,
    minThreads: 0,
    maxThreads: threads ?? MOST_THREADS,
    maxQueue: waiting ?? MOST_WAITING,
    idleTimeout: IDLE_MS,
    // As it stands in `server/` a thread needs what reads TypeScript; built it is plain JavaScript.
    execArgv: entry.pathname.endsWith(".ts") ? ["--import", "tsx"] : [],
  });
  return {
    run: async (name, input, seed, { tell, signal } = {}) => {
      signal?.throwIfAborted();
      const channel = tell ? new MessageChannel() : undefined;
      channel?.port1.on("message", (share: number) => tell?.(share));
      const asked: Asked = { name, input, seed, port: channel?.port2 };
      try {
        const how = { ...(signal ? { signal } : {}), ...(channel ? { transferList: [channel.port2] } : {}) };
        const output = (await pool.run(asked, how)) as never;
        // The answer comes by another way than what was told on it, and may be first.
        for (let left = told(channel); left !== undefined; left = told(channel)) tell?.(left);
        return output;
      } catch (error) {
        if (signal?.aborted) throw signal.reason;
        if (error instanceof Error && /queue/i.test(error.message))
          throw new HttpProblem(
            503,
            "Too much at once",
            "The server has more to work out than it can take at the moment. Nothing was changed; try again in a minute.",
          );
        throw error;
      } finally {
        channel?.port1.close();
      }
    },
    close: () => pool.destroy(),
  };
}

/** What a thread told and no one has heard yet, the oldest first. */
function told(channel: MessageChannel | undefined): number | undefined {
  return channel && (receiveMessageOnPort(channel.port1)?.message as number | undefined);
}

/** What a thread does with what it is asked; the module it is started with has this as its default export. */
export function workAt<Stock>(table: JobTable<Stock>, stock: () => Stock): (asked: Asked) => Promise<unknown> {
  let read: Stock | undefined;
  return async ({ name, input, seed, port }) => {
    const job = table[name];
    if (!job) throw new Error(`There is no job ${name}`);
    read ??= stock();
    const output = await job(input, { stock: read, seed, tell: (share) => port?.postMessage(share) });
    port?.close();
    return output;
  };
}

/** The same jobs on the thread that asks: for tests, which would wait for each thread to read all that ships. */
export function jobsHere<Stock, Table extends JobTable<Stock>>(table: Table, stock: Stock): Jobs<Table> {
  return {
    run: async (name, input, seed, { tell = () => undefined, signal } = {}) => {
      signal?.throwIfAborted();
      // As between threads: what cannot be sent is refused here too, and nothing is shared.
      const given = structuredClone(input);
      return structuredClone(
        await (table[name] as Job<Stock, unknown, unknown>)(given, { stock, seed, tell }),
      ) as never;
    },
    close: async () => undefined,
  };
}

/** Ends when whoever asked has gone: no one waits for what is worked out for them then. */
export function untilGone(request: Request): AbortSignal {
  const gone = new AbortController();
  request.res?.once("close", () => {
    if (!request.res?.writableEnded) gone.abort(new HttpProblem(499, "Gone", "Whoever asked has gone meanwhile."));
  });
  return gone.signal;
}
