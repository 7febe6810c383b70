import { useBothQuestion } from "#web/device/both.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";

/** Two people changed one thing: both states side by side, and which of them is kept. */
export function BothSheet() {
  const question = useBothQuestion();
  if (!question) return null;
  const { says, differences, both, answer } = question;
  return (
    <Sheet open onClose={() => answer("theirs")} title="Changed by someone else meanwhile">
      <p className="mb-3">{says}</p>
      <dl className="mb-4 flex flex-col gap-3">
        {differences.map(({ about, mine, theirs }) => (
          <div key={about}>
            <dt className="font-semibold">{about}</dt>
            <dd className="grid grid-cols-[4.5rem_1fr] gap-x-3">
              <span className="text-soft">Yours</span>
              <span className="whitespace-pre-line">{mine || "nothing"}</span>
              <span className="text-soft">Theirs</span>
              <span className="whitespace-pre-line">{theirs || "nothing"}</span>
            </dd>
          </div>
        ))}
      </dl>
      <div className="flex flex-wrap justify-end gap-2">
        <Button onClick={() => answer("mine")}>Save mine instead</Button>
        {both && <Button onClick={() => answer("both")}>{both}</Button>}
        <Button shape="main" onClick={() => answer("theirs")}>
          Leave theirs
        </Button>
      </div>
    </Sheet>
  );
}
