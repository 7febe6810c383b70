/** What runs by the clock. */
export interface Clockwork {
  /** Of all processes on one database the one that gets to it first; see `OpenStore.alone`. */
  alone(name: string, work: () => Promise<void>): Promise<boolean>;
  readonly everyMs: number;
  /** What is done each time, by name. One that fails is told, the others go on, and it is tried again the next time. */
  readonly works: Readonly<Record<string, () => Promise<void>>>;
  failed(name: string, error: unknown): void;
}

/** Begins the clockwork. @returns what stops it, once what it does at the moment is done */
export function wind({ alone, everyMs, works, failed }: Clockwork): () => Promise<void> {
  let doing: Promise<void> | undefined;
  const round = async () => {
    for (const [name, work] of Object.entries(works)) await alone(name, work).catch((error) => failed(name, error));
  };
  const timer = setInterval(() => {
    // A round that takes longer than the time between two is not begun a second time beside itself.
    doing ??= round().finally(() => {
      doing = undefined;
    });
  }, everyMs);
  timer.unref();
  return async () => {
    clearInterval(timer);
    await doing;
  };
}
