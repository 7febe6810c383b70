import { useEffect, useMemo, useRef, useState } from "react";
import type { AnswerBody, SittingView } from "#contract";
import { checkOf } from "#core/ledger";
import { stampNow, todayHere } from "#web/device/clock.ts";
import { outbox, useOutbox } from "#web/device/outbox.ts";
import { newId, useMarker } from "#web/device/settings.ts";

/** The log of a sitting on this screen. */
export interface SittingLog {
  /** All that is known of what was marked, by check: from the server, from this device, from other devices. */
  readonly of: (checkId: string) => readonly AnswerBody[];
  /** Adds an entry: it stands at once, and is sent as soon as there is a line. */
  readonly put: (entry: AnswerBody) => void;
  /** Takes in what another device marked. @returns what of it was not known here */
  readonly take: (entries: readonly AnswerBody[]) => readonly AnswerBody[];
  /** False until what this device has kept was read. */
  readonly ready: boolean;
}

const nothing: readonly AnswerBody[] = [];

export function useSittingLog(sitting: SittingView): SittingLog {
  const [known, setKnown] = useState<ReadonlyMap<string, AnswerBody>>(() => withAll(new Map(), entriesOf(sitting)));
  // What comes back of what was marked here is known at once, also before it is drawn.
  const latest = useRef(known);
  useEffect(() => {
    latest.current = known;
  }, [known]);
  const [ready, setReady] = useState(false);
  const { refused } = useOutbox();
  useEffect(() => {
    let here = true;
    void Promise.all([outbox.ready, outbox.logOf(sitting.id)]).then(([, entries]) => {
      if (!here) return;
      setKnown((before) => withAll(before, entries));
      setReady(true);
    });
    return () => {
      here = false;
    };
  }, [sitting.id]);
  useEffect(() => setKnown((before) => withAll(before, entriesOf(sitting))), [sitting]);

  const byCheck = useMemo(() => {
    const out = new Set(refused.map(({ answer }) => answer.id));
    const found = new Map<string, AnswerBody[]>();
    for (const entry of known.values()) {
      if (out.has(entry.id)) continue;
      const target = entry.outcome === "void" ? known.get(entry.voids) : entry;
      const checkId = target && target.outcome !== "void" ? checkOf(target) : null;
      if (checkId === null) continue;
      const list = found.get(checkId);
      if (list) list.push(entry);
      else found.set(checkId, [entry]);
    }
    return found;
  }, [known, refused]);
  return useMemo(
    () => ({
      of: (checkId) => byCheck.get(checkId) ?? nothing,
      put: (entry) => {
        latest.current = withAll(latest.current, [entry]);
        setKnown((before) => withAll(before, [entry]));
        outbox.add(entry, sitting.id);
      },
      take: (entries) => {
        setKnown((before) => withAll(before, entries));
        return entries.filter(({ id }) => !latest.current.has(id));
      },
      ready,
    }),
    [byCheck, ready, sitting.id],
  );
}

function entriesOf(sitting: SittingView): readonly AnswerBody[] {
  return sitting.checks.flatMap((check) => check.answers);
}

function withAll(
  known: ReadonlyMap<string, AnswerBody>,
  entries: readonly AnswerBody[],
): ReadonlyMap<string, AnswerBody> {
  const fresh = entries.filter((entry) => !known.has(entry.id));
  if (fresh.length === 0) return known;
  const all = new Map(known);
  for (const entry of fresh) all.set(entry.id, entry);
  return all;
}

/** Makes what every entry begins with: a new id, who marks here, and when. */
export function useStamp(childId: string) {
  const [marker] = useMarker();
  return () => ({
    id: newId(),
    childId,
    markedAt: stampNow(),
    day: todayHere(),
    markedBy: marker.trim() || "Teacher",
  });
}
