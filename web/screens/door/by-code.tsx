import { useEffect, useRef, useState } from "react";
import { type AnswerOf, signInByCode, type whoAsks } from "#contract";
import { call, wordsOfError } from "#web/device/api.ts";
import { someoneElse } from "#web/device/me.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { DoorFrame, Said } from "./frame.tsx";

type Shared = NonNullable<AnswerOf<typeof whoAsks>["device"]>;

/** The door of a device that several people use: who it is, and their code. */
export function ByCode({
  school,
  device,
  onPassphrase,
}: {
  school: string;
  device: Shared;
  onPassphrase: () => void;
}) {
  const [who, setWho] = useState<Shared["people"][number]>();
  const [code, setCode] = useState("");
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the field comes with whom was chosen
  useEffect(() => field.current?.focus(), [who]);
  const enter = async () => {
    if (!who) return;
    setProblem(undefined);
    setBusy(true);
    try {
      await call(signInByCode, { body: { memberId: who.id, code } });
      await someoneElse();
    } catch (error) {
      setProblem(wordsOfError(error));
      setCode("");
      field.current?.focus();
    }
    setBusy(false);
  };
  return (
    <DoorFrame school={school} title={who ? who.name : "Who is it?"}>
      {!who && (
        <>
          <ul className="flex flex-col gap-2">
            {device.people.map((one) => (
              <li key={one.id}>
                <Button className="min-h-12 w-full text-lg" onClick={() => setWho(one)}>
                  {one.name}
                </Button>
              </li>
            ))}
          </ul>
          <Button shape="quiet" className="self-start" onClick={onPassphrase}>
            Someone else: by passphrase
          </Button>
        </>
      )}
      {who && (
        <form
          className="flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            void enter();
          }}
        >
          <TextField
            ref={field}
            label="Your code on this device"
            type="password"
            inputMode="numeric"
            autoComplete="off"
            className="text-2xl tracking-[0.4em]"
            value={code}
            required
            onChange={(event) => setCode(event.target.value)}
          />
          <Said words={problem} />
          <div className="flex flex-wrap gap-2">
            <Button type="submit" shape="main" disabled={busy}>
              Come in
            </Button>
            <Button
              onClick={() => {
                setWho(undefined);
                setCode("");
                setProblem(undefined);
              }}
            >
              Someone else
            </Button>
            <Button shape="quiet" onClick={onPassphrase}>
              By passphrase
            </Button>
          </div>
        </form>
      )}
      <p className="text-sm text-soft">{device.name}</p>
    </DoorFrame>
  );
}
