import type { CheckView } from "#contract";
import type { CheckResult } from "#core/checks";
import type { GivenAnswer, NoteEntry, StopReason } from "#core/ledger";

/** One check with what it says. */
export interface CheckTold {
  readonly check: CheckView;
  readonly result: CheckResult;
  /** Its standing answers, in order of marking. */
  readonly answers: readonly GivenAnswer[];
  readonly notes: readonly NoteEntry[];
  /** Why it ended; undefined while it is open, or when it ended before that was noted. */
  readonly why: StopReason | undefined;
}
