import { toast } from "./toast.tsx";

interface GivenSelectProps {
  /** What is given, as it is called. */
  readonly name: string;
  /** What stands where it is given to no one. */
  readonly anyone: string;
  readonly now: { readonly name: string } | null;
  /** The person chosen, empty for anyone; undefined until it is known who could do it. */
  readonly to: string | undefined;
  readonly colleagues: readonly { readonly id: string; readonly name: string }[];
  turnTo(): void;
  give(to: string): Promise<{ readonly says: string; readonly isFault?: true }>;
}

/** To whom something is given, to be chosen; who could do it is asked when someone turns to it. */
export function GivenSelect({ name, anyone, now, to, colleagues, turnTo, give }: GivenSelectProps) {
  return (
    <select
      aria-label={`${name} is given to`}
      value={to ?? "now"}
      onPointerDown={turnTo}
      onFocus={turnTo}
      onChange={async (event) => {
        const { says, isFault } = await give(event.target.value);
        if (isFault) toast.error(says);
        else toast(says);
      }}
      className="max-w-56 rounded border border-line bg-sheet px-1.5 py-1 text-sm"
    >
      {to === undefined && <option value="now">{now ? now.name : anyone}</option>}
      {to !== undefined && <option value="">{anyone}</option>}
      {colleagues.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}
