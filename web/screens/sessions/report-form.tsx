import { useState } from "react";
import { reportSession, type SessionView } from "#contract";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { useMarker } from "#web/device/settings.ts";
import { toast } from "#web/parts/toast.tsx";
import { ReportFields } from "./report-fields.tsx";

/** The teacher's own report of a session. */
export function ReportForm({ session, onDone }: { session: SessionView; onDone: () => void }) {
  const [marker] = useMarker();
  const [trouble, setTrouble] = useState<string | null>(null);
  return (
    <ReportFields
      members={session.members}
      plan={session.plan}
      by={marker}
      trouble={trouble}
      onSend={async (report) => {
        try {
          await call(reportSession, { params: { id: session.id }, body: report });
          await refreshAll();
          toast("Saved. The marks are in the answers of each child.");
          onDone();
          return true;
        } catch (error) {
          setTrouble(wordsOfError(error));
          return false;
        }
      }}
    />
  );
}
