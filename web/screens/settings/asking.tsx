import { type FormEvent, type ReactNode, useState } from "react";
import { Refused, refreshAll, wordsOfError } from "#web/device/api.ts";
import { Button } from "#web/parts/button.tsx";
import { toast } from "#web/parts/toast.tsx";

interface AskingWanted {
  readonly action: string;
  /** @returns what is said when it was done */
  readonly send: () => Promise<string>;
  readonly children: (problems: Readonly<Record<string, string>>) => ReactNode;
}

/** A form whose refusals stand beside its fields. */
export function Asking({ action, send, children }: AskingWanted) {
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setProblems({});
    setBusy(true);
    try {
      const says = await send();
      await refreshAll();
      if (says) toast(says);
    } catch (error) {
      const fields = error instanceof Refused ? error.problem.fields : [];
      if (fields.length === 0) toast.error(wordsOfError(error));
      setProblems(Object.fromEntries(fields.map(({ field, says }) => [field, says])));
    }
    setBusy(false);
  };
  return (
    <form className="flex flex-col gap-3" onSubmit={submit}>
      {children(problems)}
      <Button type="submit" className="self-start" working={busy}>
        {action}
      </Button>
    </form>
  );
}
