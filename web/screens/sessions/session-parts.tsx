import type { PlanBody, SessionView } from "#contract";
import { kindsOfPart, MOST_PARTS, type PartKind, partKinds } from "#core/plans";
import type { TaughtReader } from "#core/words";
import { Choice } from "#web/parts/field.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { PartEditor } from "./part-editor.tsx";

interface PartsWanted {
  readonly session: SessionView;
  readonly reader: TaughtReader | undefined;
  readonly onPlan: (plan: PlanBody) => Promise<boolean>;
  /** Fills the part at this place with others. */
  readonly onOthers: (at: number) => Promise<unknown>;
  /** Puts a part of this kind at the end, filled. */
  readonly onFill: (kind: PartKind) => Promise<unknown>;
}

/** The parts of a session: each is edited, moved or taken out where it stands, and another is put behind them. */
export function SessionParts({ session, reader, onPlan, onOthers, onFill }: PartsWanted) {
  const { plan, members } = session;
  const { parts } = plan;
  const put = (changed: PlanBody["parts"]) => onPlan({ ...plan, parts: changed });
  const move = (at: number, by: -1 | 1) => {
    const moved = [...parts];
    const [one] = moved.splice(at, 1);
    if (one) moved.splice(at + by, 0, one);
    return put(moved);
  };
  const remove = async (at: number) => {
    const { title } = kindsOfPart[parts[at]?.kind ?? "teach"];
    if (await put(parts.filter((_, place) => place !== at)))
      toastWithUndo(`${title} is taken out.`, async () => void (await put(parts)));
  };
  /** A kind that comes again has a number. */
  const calledAt = (at: number) => {
    const kind = parts[at]?.kind ?? "teach";
    const before = parts.slice(0, at).filter((one) => one.kind === kind).length;
    return before > 0 ? `${kindsOfPart[kind].title}, ${before + 1}` : kindsOfPart[kind].title;
  };
  return (
    <>
      {parts.map((part, at) => (
        <PartEditor
          // biome-ignore lint/suspicious/noArrayIndexKey: a kind may come twice, and a part has no other name
          key={`${part.kind} ${at}`}
          part={part}
          name={calledAt(at)}
          onOthers={["teach", "lastLook", "exceptionWords"].includes(part.kind) ? undefined : () => onOthers(at)}
          nameOf={(id) => members.find((one) => one.id === id)?.name ?? ""}
          reader={reader}
          onChange={(changed) => put(parts.map((one, place) => (place === at ? changed : one)))}
          onEarlier={at > 0 ? () => void move(at, -1) : undefined}
          onLater={at < parts.length - 1 ? () => void move(at, 1) : undefined}
          onRemove={parts.length > 1 ? () => void remove(at) : undefined}
        />
      ))}
      <div className="w-60 px-4 py-3">
        <Choice
          label="Add a part"
          value=""
          disabled={parts.length >= MOST_PARTS}
          onChange={(event) => void onFill(event.target.value as PartKind)}
        >
          <option value="" disabled>
            choose
          </option>
          {partKinds.map((kind) => (
            <option key={kind} value={kind}>
              {kindsOfPart[kind].title}
            </option>
          ))}
        </Choice>
      </div>
    </>
  );
}
