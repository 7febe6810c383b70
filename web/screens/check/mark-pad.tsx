import { type FormEvent, useRef, useState } from "react";
import type { Confusion } from "#core/phonics";
import { ipa, plainSound } from "#core/phonics";
import { useKeys } from "#web/app/keys.tsx";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";

export type Marking =
  | { readonly outcome: "right" | "slow" | "ownWay" | "none" }
  | { readonly outcome: "wrong"; readonly heard: string | null };

const heardKeys = ["q", "w", "e", "r", "t", "y"];

/** One key or one large target for each mark, always in the same place. */
export function MarkPad({
  confusions,
  onMark,
}: {
  confusions: readonly Confusion[];
  onMark: (marking: Marking) => void;
}) {
  const [typing, setTyping] = useState(false);
  const typed = useRef<HTMLInputElement>(null);
  const marks: { key: string; name: string; hint: string; run: () => void; strong?: boolean }[] = [
    { key: "1", name: "Right at once", hint: "", run: () => onMark({ outcome: "right" }), strong: true },
    { key: "2", name: "Right, slow", hint: "", run: () => onMark({ outcome: "slow" }) },
    { key: "3", name: "In their own way", hint: "counts as right", run: () => onMark({ outcome: "ownWay" }) },
    { key: "4", name: "Something else", hint: "type it", run: () => setTyping(true) },
    { key: "5", name: "No answer", hint: "", run: () => onMark({ outcome: "none" }) },
  ];
  const heard = confusions.map((confusion, at) => ({
    ...confusion,
    key: heardKeys[at] ?? "",
    run: () => onMark({ outcome: "wrong", heard: confusion.sound }),
  }));
  useKeys([
    { key: " ", does: "Right at once", run: () => onMark({ outcome: "right" }) },
    ...marks.map(({ key, name, run }) => ({ key, does: name, run })),
    ...heard.map(({ key, sound, run }) => ({ key, does: `Said “${plainSound(sound)}” instead`, run })),
  ]);
  const keep = (event: FormEvent) => {
    event.preventDefault();
    onMark({ outcome: "wrong", heard: typed.current?.value.trim().slice(0, 30) || null });
  };
  if (typing) {
    return (
      <form onSubmit={keep} className="mx-auto flex w-full max-w-xl items-end gap-2 pb-4">
        <div className="flex-1">
          <TextField
            label="What was said"
            autoFocus
            maxLength={30}
            ref={typed}
            onKeyDown={(event) => event.key === "Escape" && setTyping(false)}
            hint="In plain letters. Enter keeps the mark, also when this is empty; Escape goes back."
          />
        </div>
        <Button type="submit" shape="main" className="mb-6 min-h-9">
          Keep as wrong
        </Button>
        <Button className="mb-6" onClick={() => setTyping(false)}>
          Back
        </Button>
      </form>
    );
  }
  return (
    <div className="flex flex-col gap-2 pb-3">
      <fieldset className="grid grid-cols-6 gap-2">
        <legend className="mb-1 text-sm text-soft">Said instead (counts as wrong)</legend>
        {heard.map(({ sound, kind, key, run }) => (
          <button
            key={sound}
            type="button"
            onClick={run}
            aria-label={`Wrong: said ${plainSound(sound)}`}
            title={kind}
            className="flex min-h-12 flex-col items-center justify-center rounded-lg border border-line bg-sheet leading-tight hover:border-damson"
          >
            <span className="font-child">{plainSound(sound)}</span>
            <span className="text-xs text-soft">
              {ipa(sound)} <kbd>{key.toUpperCase()}</kbd>
            </span>
          </button>
        ))}
      </fieldset>
      <fieldset className="grid grid-cols-5 gap-2">
        <legend className="sr-only">Mark</legend>
        {marks.map(({ key, name, hint, run, strong }) => (
          <button
            key={key}
            type="button"
            onClick={run}
            className={`flex min-h-20 flex-col items-center justify-center rounded-xl border px-1 text-center leading-tight ${strong ? "border-leaf bg-leaf font-semibold text-on-leaf" : "border-line bg-sheet hover:border-soft"}`}
          >
            {name}
            <span className={`text-xs ${strong ? "" : "text-soft"}`}>
              {hint ? `${hint} · ` : ""}
              <kbd>{key}</kbd>
            </span>
          </button>
        ))}
      </fieldset>
    </div>
  );
}
