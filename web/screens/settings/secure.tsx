import { useState } from "react";
import { Link } from "react-router";
import { type School, type SecureWhenBody, secureWhen as secureSchema, setSecureWhen } from "#contract";
import { secureInWords } from "#core/mastery";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault, Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

type By = SecureWhenBody["by"];

/** Each way with what it begins with, its name, and who prefers it. */
const ways: readonly { readonly begins: SecureWhenBody; readonly name: string; readonly why: string }[] = [
  {
    begins: { by: "model", percent: 85 },
    name: "By its chance",
    why: "All that the child read, wrote and said counts, and what has faded counts less.",
  },
  {
    begins: { by: "days", days: 2 },
    name: "Right at once on different days",
    why: "Plain to count by hand. It hears cards alone.",
  },
  {
    begins: { by: "share", percent: 80, of: 5 },
    name: "A share of its last cards",
    why: "One slip among many does not undo what was there.",
  },
  {
    begins: { by: "pass" },
    name: "A whole round without an error",
    why: "For schools whose decks go round until every card is firm.",
  },
];

/** When a spelling counts as secure: one of four ways, with its figures. */
export function SecurePanel({ school }: { school: School }) {
  const [form, setForm] = useState<SecureWhenBody>(school.secureWhen);
  const [problem, setProblem] = useState<string>();
  const changed = JSON.stringify(form) !== JSON.stringify(school.secureWhen);
  useUnsaved(changed);
  const put = (change: SecureWhenBody) => {
    setProblem(undefined);
    setForm(change);
  };
  const save = async () => {
    const read = secureSchema.safeParse(form);
    if (!read.success)
      return setProblem("A share lies between 50 and 99, days between 1 and 5, cards between 3 and 10.");
    try {
      const saved = await saveOver({
        content: { secureWhen: read.data },
        onto: school.version,
        send: (content, version) => call(setSecureWhen, { body: { ...content, version } }),
        says: ({ secureWhen }) => ({ "Secure means": secureInWords(secureWhen) }),
      });
      await refreshAll();
      if (!saved) return setForm(school.secureWhen);
      toast("Saved. The map, groups and plans follow it; no mark is changed.");
    } catch (error) {
      setProblem(wordsOfError(error));
    }
  };
  return (
    <Panel
      title="Secure means"
      actions={
        <Button shape="main" disabled={!changed} onClick={save}>
          Save
        </Button>
      }
    >
      <fieldset className="flex flex-col gap-3">
        <legend className="sr-only">When a spelling counts as secure</legend>
        {ways.map(({ begins, name, why }) => (
          <div key={begins.by}>
            <label className="flex cursor-pointer items-center gap-2 font-semibold">
              <input
                type="radio"
                name="secure means"
                className="accent-leaf"
                checked={form.by === begins.by}
                onChange={() => put(school.secureWhen.by === begins.by ? school.secureWhen : begins)}
              />
              {name}
            </label>
            <p className="ml-6 text-sm text-soft">{why}</p>
            {form.by === begins.by && <Figures form={form} onChange={put} />}
          </div>
        ))}
      </fieldset>
      <Fault className="mt-2">{problem}</Fault>
      <p className="mt-3 text-sm text-soft">
        Whatever it is, the chance stands behind it.{" "}
        <Link to="/sure" className="underline">
          How sure is the tool
        </Link>
      </p>
    </Panel>
  );
}

function Figures({ form, onChange }: { form: SecureWhenBody; onChange: (form: SecureWhenBody) => void }) {
  const figure = (label: string, value: number, change: (value: number) => SecureWhenBody) => (
    <div key={label} className="w-32">
      <TextField
        label={label}
        type="number"
        value={String(value)}
        onChange={(event) => onChange(change(Number(event.target.value)))}
      />
    </div>
  );
  const fields: Record<By, () => React.ReactNode> = {
    model: () => form.by === "model" && figure("At least, in %", form.percent, (percent) => ({ ...form, percent })),
    days: () => form.by === "days" && figure("Days", form.days, (days) => ({ ...form, days })),
    share: () =>
      form.by === "share" && (
        <>
          {figure("At least, in %", form.percent, (percent) => ({ ...form, percent }))}
          {figure("Of its last cards", form.of, (of) => ({ ...form, of }))}
        </>
      ),
    pass: () => null,
  };
  return <div className="mt-1 ml-6 flex gap-3">{fields[form.by]()}</div>;
}
