import { type FormEvent, useEffect, useRef, useState } from "react";
import { comeIn, type Role, roleSays, roles, signIn, signInSecond } from "#contract";
import { call, wordsOfError } from "#web/device/api.ts";
import { useSignedOutWhenLocked } from "#web/device/lock.ts";
import { someoneElse, useMe } from "#web/device/me.ts";
import { comeInByPasskey, knowsPasskeys } from "#web/device/passkeys.ts";
import { useLastName } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField, Tick } from "#web/parts/field.tsx";
import { ByCode } from "./by-code.tsx";
import { DoorFrame, Said } from "./frame.tsx";

/** The door of a school: signing in, or where nothing is real, coming in as one of the roles. */
export function Screen() {
  const { data } = useMe();
  const locked = useSignedOutWhenLocked();
  const [byPassphrase, setByPassphrase] = useState(false);
  const school = data?.school.name ?? "";
  if (locked)
    return (
      <DoorFrame school="" title="Locked">
        <p>This device opens again as soon as it has a connection. Marks that wait on it are kept.</p>
      </DoorFrame>
    );
  if (data?.device && data.device.people.length > 0 && !byPassphrase)
    return <ByCode school={school} device={data.device} onPassphrase={() => setByPassphrase(true)} />;
  if (data?.demo) return <ComeIn school={school} />;
  return <SignIn school={school} />;
}

const roleNames: Readonly<Record<Role, string>> = {
  lead: "the lead",
  teacher: "a teacher",
  assistant: "an assistant",
  observer: "an observer",
};

function ComeIn({ school }: { school: string }) {
  const [problem, setProblem] = useState<string>();
  const enter = async (role: Role) => {
    setProblem(undefined);
    try {
      await call(comeIn, { body: { role } });
      await someoneElse();
    } catch (error) {
      setProblem(wordsOfError(error));
    }
  };
  return (
    <DoorFrame school={school} title="Look around">
      <p>Nothing in this school is real. Come in as whoever you like, and change what you like.</p>
      <ul className="flex flex-col gap-4">
        {roles.toReversed().map((role) => (
          <li key={role}>
            <Button
              shape={role === "lead" ? "main" : "plain"}
              className="w-full justify-center"
              onClick={() => enter(role)}
            >
              Come in as {roleNames[role]}
            </Button>
            <p className="mt-1 text-sm text-soft">{roleSays[role]}</p>
          </li>
        ))}
      </ul>
      <Said words={problem} />
    </DoorFrame>
  );
}

function SignIn({ school }: { school: string }) {
  const [name, setName] = useLastName();
  const [passphrase, setPassphrase] = useState("");
  const [keep, setKeep] = useState(true);
  const [second, setSecond] = useState(false);
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const trying = async (work: () => Promise<unknown>) => {
    setProblem(undefined);
    setBusy(true);
    try {
      await work();
    } catch (error) {
      setProblem(wordsOfError(error));
    }
    setBusy(false);
  };
  const enter = (event: FormEvent) => {
    event.preventDefault();
    void trying(async () => {
      const told = await call(signIn, { body: { name, passphrase, keep } });
      if (told.second) setSecond(true);
      else await someoneElse();
    });
  };
  if (second)
    return (
      <Second
        school={school}
        problem={problem}
        busy={busy}
        onCode={(code) =>
          trying(async () => {
            await call(signInSecond, { body: { code } });
            await someoneElse();
          })
        }
        onBack={() => {
          setSecond(false);
          setPassphrase("");
        }}
      />
    );
  return (
    <DoorFrame school={school} title="Sign in">
      <form className="flex flex-col gap-4" onSubmit={enter}>
        <TextField
          label="Your name"
          hint="As the lead of your school wrote it."
          value={name}
          autoComplete="username"
          required
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
        />
        <TextField
          label="Passphrase"
          type="password"
          value={passphrase}
          autoComplete="current-password"
          required
          onChange={(event) => setPassphrase(event.target.value)}
        />
        <Tick checked={keep} onChange={setKeep}>
          Stay signed in on this device
        </Tick>
        <Said words={problem} />
        <Button type="submit" shape="main" disabled={busy} className="justify-center">
          Sign in
        </Button>
        {knowsPasskeys() && (
          <Button
            disabled={busy}
            className="justify-center"
            onClick={() =>
              trying(async () => {
                await comeInByPasskey(keep);
                await someoneElse();
              })
            }
          >
            Use a passkey of this device
          </Button>
        )}
        <p className="text-sm text-soft">
          Never been here, or forgot it? The lead of your school makes you a link with which you choose a new
          passphrase.
        </p>
      </form>
    </DoorFrame>
  );
}

interface SecondWanted {
  readonly school: string;
  readonly problem: string | undefined;
  readonly busy: boolean;
  readonly onCode: (code: string) => void;
  readonly onBack: () => void;
}

function Second({ school, problem, busy, onCode, onBack }: SecondWanted) {
  const [code, setCode] = useState("");
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  return (
    <DoorFrame school={school} title="The code of your app">
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          onCode(code.replace(/\s/g, ""));
        }}
      >
        <TextField
          ref={field}
          label="Six figures"
          hint="Your authenticator app shows new ones every half minute."
          inputMode="numeric"
          autoComplete="one-time-code"
          value={code}
          required
          onChange={(event) => setCode(event.target.value)}
        />
        <Said words={problem} />
        <div className="flex gap-2">
          <Button type="submit" shape="main" disabled={busy}>
            Sign in
          </Button>
          <Button onClick={onBack}>Back</Button>
        </div>
      </form>
    </DoorFrame>
  );
}
