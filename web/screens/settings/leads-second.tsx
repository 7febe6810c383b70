import { useState } from "react";
import { Link } from "react-router";
import { setLeadsSecond } from "#contract";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { useMe } from "#web/device/me.ts";
import { Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** Whether leads of the school sign in with a second factor. */
export function LeadsSecond({ needed, version }: { readonly needed: boolean; readonly version: number }) {
  const me = useMe().data?.me;
  const has = (me?.secondFactor || me?.byPasskey) ?? false;
  /** What was pressed and is being saved. */
  const [wished, setWished] = useState<boolean>();
  const set = async (leadsNeedSecond: boolean) => {
    setWished(leadsNeedSecond);
    try {
      await call(setLeadsSecond, { body: { version, leadsNeedSecond } });
      toast(
        leadsNeedSecond
          ? "Leads sign in with a second factor from now on. Who has none sets it up first."
          : "Leads may sign in by their passphrase alone again.",
      );
    } catch (error) {
      toast.error(wordsOfError(error));
    }
    await refreshAll();
    setWished(undefined);
  };
  return (
    <Panel title="Second factor of leads">
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-leaf"
          checked={wished ?? needed}
          disabled={!needed && !has}
          onChange={(event) => void set(event.target.checked)}
        />
        Leads sign in with a code of an authenticator app as well, or by a passkey
      </label>
      <p className="mt-1 text-sm text-soft">
        {needed || has ? (
          "A lead who has none can do nothing but set it up."
        ) : (
          <>
            Set up{" "}
            <Link to="/settings/mine" className="underline underline-offset-4">
              your own
            </Link>{" "}
            first: without it you would lock yourself out.
          </>
        )}
      </p>
    </Panel>
  );
}
