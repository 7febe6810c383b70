import type { CheckView, SittingView } from "#contract";
import type { GivenAnswer, StopReason } from "#core/ledger";

/** What every kind of desk is given. */
export interface DeskWanted {
  readonly sitting: SittingView;
  readonly check: CheckView;
  readonly child: SittingView["children"][number];
  readonly answers: readonly GivenAnswer[];
  readonly ended: boolean;
  /** What comes when this part is done, in a few words. */
  readonly next: string;
  readonly onDone: () => void;
  readonly onStop: (why: StopReason, all: boolean) => void;
  readonly onGoOn: () => void;
}

/** How far a check is. */
export interface Progress {
  readonly ended: boolean;
  /** Items of the first round that were answered. */
  readonly asked: number;
}
