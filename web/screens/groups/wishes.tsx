import { X } from "lucide-react";
import { useState } from "react";
import { addWish, removeWish, type Wish } from "#contract";
import { plural } from "#core/saying";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Choice } from "#web/parts/field.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { Fold } from "./making.tsx";

const kinds = { apart: "apart", together: "together", alone: "by themselves" } as const;

interface WishesWanted {
  readonly wishes: readonly Wish[];
  readonly people: readonly { readonly id: string; readonly name: string }[];
  readonly name: (id: string) => string;
}

/** Pairs to keep apart or together, and who is taught alone: kept for as long as no one takes them back. */
export function Wishes({ wishes, people, name }: WishesWanted) {
  const [childId, setChildId] = useState("");
  const [kind, setKind] = useState<Wish["kind"]>("apart");
  const [otherId, setOtherId] = useState("");
  const shown = wishes.filter(
    (wish) => name(wish.childId) !== "" && (wish.otherId === null || name(wish.otherId) !== ""),
  );
  const add = async (wish: Pick<Wish, "kind" | "childId" | "otherId">) => {
    try {
      await call(addWish, {
        params: { id: wish.childId },
        body: { id: newId(), kind: wish.kind, otherId: wish.otherId },
      });
      await refreshAll();
      setChildId("");
      setOtherId("");
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const remove = async (wish: Wish) => {
    try {
      await call(removeWish, { params: { id: wish.childId, wishId: wish.id } });
      await refreshAll();
      toastWithUndo(`${says(wish)} is no wish any more.`, () => add(wish));
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const says = (wish: Wish) =>
    wish.otherId === null
      ? `${name(wish.childId)} by themselves`
      : `${name(wish.childId)} and ${name(wish.otherId)} ${kinds[wish.kind]}`;
  const choose = (label: string, value: string, onChange: (id: string) => void, without = "") => (
    <div className="w-40">
      <Choice label={label} value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">Choose</option>
        {people
          .filter((child) => child.id !== without)
          .map((child) => (
            <option key={child.id} value={child.id}>
              {child.name}
            </option>
          ))}
      </Choice>
    </div>
  );
  return (
    <Fold title="Wishes" now={shown.length === 0 ? "none" : plural(shown.length, "wish", "wishes")}>
      <ul className="mb-2 flex flex-wrap gap-1.5">
        {shown.map((wish) => (
          <li
            key={wish.id}
            className="inline-flex items-center rounded-full border border-line bg-paper py-0.5 pr-1 pl-3"
            title={`${wish.by}, since ${wish.since}`}
          >
            {says(wish)}
            <button
              type="button"
              aria-label={`Take back: ${says(wish)}`}
              className="ml-1 inline-flex size-6 items-center justify-center rounded-full text-soft hover:text-ink"
              onClick={() => void remove(wish)}
            >
              <X size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-end gap-2">
        {choose("Child", childId, setChildId)}
        <div className="w-36">
          <Choice label="Wish" value={kind} onChange={(event) => setKind(event.target.value as Wish["kind"])}>
            <option value="apart">apart from</option>
            <option value="together">together with</option>
            <option value="alone">by themselves</option>
          </Choice>
        </div>
        {kind !== "alone" && choose("Other child", otherId, setOtherId, childId)}
        <Button
          disabled={childId === "" || (kind !== "alone" && otherId === "")}
          onClick={() => add({ kind, childId, otherId: kind === "alone" ? null : otherId })}
        >
          Keep this wish
        </Button>
      </div>
    </Fold>
  );
}
