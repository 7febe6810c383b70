import { type FormEvent, useState } from "react";
import { useParams } from "react-router";
import { type AnswerOf, acceptInvitation, getInvitation, LEAST_PASSPHRASE, roleSays } from "#contract";
import { call, Refused, useAskOnly, wordsOfError } from "#web/device/api.ts";
import { zoneOfBrowser } from "#web/device/clock.ts";
import { someoneElse } from "#web/device/me.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField, ZoneField } from "#web/parts/field.tsx";
import { Trouble, Waiting } from "#web/parts/page.tsx";
import { DoorFrame, Said } from "./frame.tsx";

/** Where a link leads with which someone comes in for the first time, sets the school up, or is let in again. */
export function Screen() {
  const { token = "" } = useParams();
  const { data, error } = useAskOnly(getInvitation, { params: { token } });
  if (error)
    return (
      <DoorFrame school="" title="This link">
        <Trouble error={error} />
      </DoorFrame>
    );
  if (!data)
    return (
      <DoorFrame school="" title="One moment">
        <Waiting />
      </DoorFrame>
    );
  return <Form token={token} invitation={data} />;
}

function Form({ token, invitation }: { token: string; invitation: AnswerOf<typeof getInvitation> }) {
  const { school, who } = invitation;
  const [name, setName] = useState("");
  const [called, setCalled] = useState(school.name);
  const [zone, setZone] = useState(school.zoneChosen ? school.timeZone : zoneOfBrowser());
  const [passphrase, setPassphrase] = useState("");
  const [shown, setShown] = useState(false);
  const [problem, setProblem] = useState<string>();
  const [fields, setFields] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  const enter = async (event: FormEvent) => {
    event.preventDefault();
    setProblem(undefined);
    setFields({});
    setBusy(true);
    try {
      const setUp = who ? null : { name, school: called, timeZone: zone };
      await call(acceptInvitation, { params: { token }, body: { passphrase, setUp } });
      await someoneElse("/");
    } catch (error) {
      setProblem(wordsOfError(error));
      if (error instanceof Refused)
        setFields(Object.fromEntries(error.problem.fields.map(({ field, says }) => [field, says])));
    }
    setBusy(false);
  };
  return (
    <DoorFrame school={school.name} title={who ? `Welcome, ${who.name}` : "Set up your school"}>
      {who ? (
        <p>
          You come in as {/^[ao]/.test(who.role) ? "an" : "a"} {who.role}. {roleSays[who.role]}
        </p>
      ) : (
        <p>
          You will be its lead: you see everything, and you invite the others. From then on everyone signs in, at this
          machine too.
        </p>
      )}
      <form className="flex flex-col gap-4" onSubmit={enter}>
        {!who && (
          <>
            <TextField
              label="Your name"
              hint="As your colleagues call you. You sign in by it, and marks of yours carry it."
              value={name}
              required
              maxLength={60}
              autoComplete="name"
              problem={fields["setUp.name"]}
              onChange={(event) => setName(event.target.value)}
            />
            <TextField
              label="The school’s name"
              value={called}
              required
              maxLength={80}
              problem={fields["setUp.school"]}
              onChange={(event) => setCalled(event.target.value)}
            />
            <ZoneField
              value={zone}
              onSet={setZone}
              problem={fields["setUp.timeZone"]}
              hint="By which the days of the school go."
            />
          </>
        )}
        <TextField
          label="Choose a passphrase"
          type={shown ? "text" : "password"}
          value={passphrase}
          required
          autoComplete="new-password"
          problem={fields.passphrase}
          hint={`${LEAST_PASSPHRASE} letters or more: three or four words that do not belong together. No figures or signs needed.`}
          onChange={(event) => setPassphrase(event.target.value)}
        />
        <Button className="self-start" aria-pressed={shown} shape="quiet" onClick={() => setShown(!shown)}>
          {shown ? "Hide the passphrase" : "Show the passphrase"}
        </Button>
        <Said words={Object.keys(fields).length > 0 ? undefined : problem} />
        <Button type="submit" shape="main" disabled={busy}>
          {who ? "Come in" : "Set up the school"}
        </Button>
      </form>
    </DoorFrame>
  );
}
