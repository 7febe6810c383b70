import { getChanges } from "#contract";
import { useAsk } from "#web/device/api.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { useOutbox } from "#web/device/outbox.ts";
import { Changed } from "#web/parts/changed.tsx";

/** What a check changed on the map, once the server has all of its marks. */
export function CheckChanged({ childId, sittingId }: { childId: string; sittingId: string }) {
  const mayRead = useIsAtLeast("teacher");
  const { waiting, lineDown } = useOutbox();
  const all = waiting.length === 0;
  const asking = { params: { id: childId }, query: { sittingId } };
  const { data } = useAsk(getChanges, mayRead && all ? asking : null);
  if (!mayRead) return null;
  return (
    <Changed
      data={data}
      what="check"
      {...(lineDown ? { meanwhile: "The marks are on this device; it is worked out once the server has them." } : {})}
    />
  );
}
