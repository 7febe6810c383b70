import { type FormEvent, useState } from "react";
import { type PresetView, type SectionBody, savePreset } from "#contract";
import { kinds } from "#core/checks";
import { plural } from "#core/saying";
import { call, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";

interface PlanContent {
  readonly name: string;
  readonly purpose: string;
  readonly sections: readonly SectionBody[];
}

/**
 * Keeps a plan over the version that it was made from, 0 for a new one.
 * @param wanted.apart the id under which mine is kept beside another's
 */
export function savePlan(wanted: { id: string; onto: number; apart: string; plan: PlanContent }) {
  const send = (id: string, plan: PlanContent, version: number) =>
    call(savePreset, { params: { id }, body: { ...plan, version } });
  return saveOver({
    content: wanted.plan,
    onto: wanted.onto,
    send: (mine, onto) => send(wanted.id, mine, onto),
    says: ({ name, purpose, sections }) => ({
      Name: name,
      "What it is for": purpose,
      Parts: sections.map(({ kind, most }) => `${kinds[kind].name}, at most ${plural(most, "item")}`).join("\n"),
    }),
    both: { says: "Keep mine as a plan of its own", keep: (mine) => send(wanted.apart, mine, 0) },
  });
}

/** Keeps the parts under a name, for everyone in the school. */
export function NamePlan({
  open,
  preset,
  onClose,
  onSave,
}: {
  open: boolean;
  preset: PresetView | undefined;
  onClose: () => void;
  onSave: (name: string, purpose: string, over: boolean) => Promise<void>;
}) {
  const mine = preset && !preset.shipped ? preset : undefined;
  const [name, setName] = useState("");
  const [purpose, setPurpose] = useState("");
  const [problem, setProblem] = useState<string | undefined>();
  useUnsaved(open && (name.trim() !== "" || purpose.trim() !== ""));
  const save = (over: boolean) => async (event: FormEvent) => {
    event.preventDefault();
    const [called, what] =
      over && mine ? [name.trim() || mine.name, purpose.trim() || mine.purpose] : [name.trim(), purpose.trim()];
    if (!called) return setProblem("Give it a name.");
    try {
      await onSave(called, what, over);
      setName("");
      setPurpose("");
      setProblem(undefined);
    } catch (error) {
      setProblem(wordsOfError(error));
    }
  };
  return (
    <Sheet open={open} onClose={onClose} title="Save as a plan">
      <form onSubmit={save(false)} className="flex flex-col gap-3">
        <TextField
          label="Name"
          value={name}
          problem={problem}
          maxLength={60}
          placeholder={mine?.name ?? "Monday look"}
          onChange={(event) => setName(event.target.value)}
        />
        <TextField
          label="What it is for"
          value={purpose}
          maxLength={200}
          placeholder={mine?.purpose ?? ""}
          onChange={(event) => setPurpose(event.target.value)}
        />
        <p className="text-sm text-soft">Everyone in the school can begin from it.</p>
        <div className="flex gap-2">
          <Button type="submit" shape="main">
            Save as a new plan
          </Button>
          {mine && <Button onClick={save(true)}>Write over “{mine.name}”</Button>}
        </div>
      </form>
    </Sheet>
  );
}
