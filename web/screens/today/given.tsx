import { useState } from "react";
import { getGiven, giveSitting, type Today } from "#contract";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { toast } from "#web/parts/toast.tsx";

type Sitting = Today["openSittings"][number];

/** Those that are given to whoever looks first, then those of no one, then those of others; each as they came. */
export function mineFirst(sittings: readonly Sitting[]): readonly Sitting[] {
  const rank = ({ givenTo }: Sitting) => (givenTo?.isMe ? 0 : givenTo ? 2 : 1);
  return [...sittings].sort((one, other) => rank(one) - rank(other));
}

/** To whom an open check is given, to be chosen; who could do it is asked when someone turns to it. */
export function GivenTo({ sitting }: { sitting: Sitting }) {
  const [turned, setTurned] = useState(false);
  const { data } = useAsk(getGiven, turned ? { params: { id: sitting.id } } : null);
  const now = sitting.givenTo;
  const give = async (to: string | null) => {
    try {
      await call(giveSitting, { params: { id: sitting.id }, body: { to } });
      await refreshAll();
      const name = data?.colleagues.find(({ id }) => id === to)?.name;
      toast(name ? `${sitting.name} is given to ${name}.` : `${sitting.name} is for anyone comes to it.`);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <select
      aria-label={`${sitting.name} is given to`}
      value={data?.to ?? (data ? "" : "now")}
      onPointerDown={() => setTurned(true)}
      onFocus={() => setTurned(true)}
      onChange={(event) => void give(event.target.value || null)}
      className="max-w-36 rounded border border-line bg-sheet px-1.5 py-1 text-sm"
    >
      {!data && <option value="now">{now ? now.name : "for anyone"}</option>}
      {data && <option value="">for anyone</option>}
      {data?.colleagues.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}
