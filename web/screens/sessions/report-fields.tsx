import { useState } from "react";
import type { PlanBody, ReportBody } from "#contract";
import { plainSound, showGrapheme, splitGpc } from "#core/phonics";
import { kindsOfPart, targetsOf } from "#core/plans";
import { stampNow } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Choice, TextArea, TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault } from "#web/parts/page.tsx";

type Outcome = ReportBody["marks"][number]["outcome"];

interface ReportWanted {
  readonly members: readonly { readonly id: string; readonly name: string; readonly absent: boolean }[];
  readonly plan: PlanBody;
  readonly by: string;
  /** @returns whether it was taken */
  readonly onSend: (report: ReportBody) => Promise<boolean>;
  readonly trouble: string | null;
}

const outcomes: readonly [Outcome, string][] = [
  ["right", "right at once"],
  ["slow", "right, slow"],
  ["ownWay", "in their own way"],
  ["wrong", "wrong"],
  ["none", "no answer"],
];

/** Who came, what was reached, a mark per child and spelling, a note. Used by the teacher and by a colleague with the link. */
export function ReportFields({ members, plan, by: firstBy, onSend, trouble }: ReportWanted) {
  const [id] = useState(newId);
  const [here] = useState(() => new Set(members.flatMap((member) => (member.absent ? [] : [member.id]))));
  const [by, setBy] = useState(firstBy);
  const [came, setCame] = useState<ReadonlySet<string>>(here);
  const [reached, setReached] = useState<string>(plan.parts.at(-1)?.kind ?? "");
  const [marks, setMarks] = useState<ReadonlyMap<string, { id: string; outcome: Outcome }>>(new Map());
  const [note, setNote] = useState("");
  const [busy, setBusy] = useState(false);
  const [sent, setSent] = useState(false);
  const [at] = useState(stampNow);
  const looked = plan.parts.find((part) => part.kind === "lastLook");
  /** What a child was asked at the end: its own, where it has any. */
  const itemsOf = (childId: string) =>
    looked?.each?.find((one) => one.childId === childId)?.items ?? looked?.items ?? targetsOf(plan);

  useUnsaved(!sent && (note.trim() !== "" || marks.size > 0 || came.size !== here.size));

  const toggle = (child: string) => {
    const next = new Set(came);
    if (!next.delete(child)) next.add(child);
    setCame(next);
  };
  const mark = (child: string, gpc: string, outcome: string) => {
    const next = new Map(marks);
    const key = `${child} ${gpc}`;
    if (outcome) next.set(key, { id: next.get(key)?.id ?? newId(), outcome: outcome as Outcome });
    else next.delete(key);
    setMarks(next);
  };
  const send = async () => {
    setBusy(true);
    const given = [...marks].flatMap(([key, { id: markId, outcome }]) => {
      const [childId = "", gpc = ""] = key.split(" ");
      return came.has(childId) ? [{ id: markId, childId, gpc, outcome }] : [];
    });
    const went = await onSend({
      id,
      by: by.trim(),
      at,
      came: [...came],
      reached: (reached || null) as ReportBody["reached"],
      marks: given,
      note,
    });
    setBusy(false);
    setSent(went);
  };

  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <TextField
        label="Your name"
        required
        maxLength={60}
        value={by}
        onChange={(event) => setBy(event.target.value)}
        autoComplete="off"
      />
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">Who came, and how it went at the end</legend>
        <ul className="flex flex-col divide-y divide-line">
          {members.map((member) => (
            <li key={member.id} className="py-2">
              <label className="flex min-h-9 items-center gap-2 font-semibold">
                <input
                  type="checkbox"
                  className="size-5 accent-leaf"
                  checked={came.has(member.id)}
                  onChange={() => toggle(member.id)}
                />{" "}
                {member.name}
                {member.absent && <span className="font-normal text-soft">absent that day</span>}
              </label>
              {came.has(member.id) && (
                <div className="mt-1 grid grid-cols-2 gap-2 pl-7">
                  {itemsOf(member.id).map((gpc, _, items) => {
                    const { grapheme, sound } = splitGpc(gpc);
                    const shown = showGrapheme(grapheme);
                    // One spelling of two sounds stands there twice.
                    const twice = items.some((one) => one !== gpc && splitGpc(one).grapheme === grapheme);
                    return (
                      <span key={gpc} className="flex items-center gap-1.5">
                        <span className="w-9 font-child text-lg leading-tight">
                          {shown}
                          {twice && <span className="block font-sans text-sm text-soft">“{plainSound(sound)}”</span>}
                        </span>
                        <select
                          aria-label={[member.name, shown, ...(twice ? [`as “${plainSound(sound)}”`] : [])].join(
                            ", ",
                          )}
                          value={marks.get(`${member.id} ${gpc}`)?.outcome ?? ""}
                          onChange={(event) => mark(member.id, gpc, event.target.value)}
                          className="min-h-9 min-w-0 flex-1 rounded-md border border-line bg-sheet px-1.5"
                        >
                          <option value="">not marked</option>
                          {outcomes.map(([outcome, words]) => (
                            <option key={outcome} value={outcome}>
                              {words}
                            </option>
                          ))}
                        </select>
                      </span>
                    );
                  })}
                </div>
              )}
            </li>
          ))}
        </ul>
      </fieldset>
      <Choice label="What was reached" value={reached} onChange={(event) => setReached(event.target.value)}>
        <option value="">It did not begin</option>
        {[...new Set(plan.parts.map(({ kind }) => kind))].map((kind) => (
          <option key={kind} value={kind}>
            {kindsOfPart[kind].title}
          </option>
        ))}
      </Choice>
      <TextArea
        label="Note"
        rows={3}
        maxLength={1000}
        value={note}
        onChange={(event) => setNote(event.target.value)}
        hint="Who still stumbled, and over what. Leave out what is private."
      />
      <Fault>{trouble}</Fault>
      <Button type="submit" shape="main" className="min-h-11" working={busy} disabled={by.trim() === ""}>
        Send what happened
      </Button>
    </form>
  );
}
