import { useState } from "react";
import {
  type AnswerOf,
  beginSecondFactor,
  changePassphrase,
  confirmSecondFactor,
  endMyDevice,
  endMyOtherDevices,
  endSecondFactor,
  LEAST_CODE,
  LEAST_PASSPHRASE,
  listMyDevices,
  setMyCode,
  signOut,
} from "#contract";
import { nearDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { someoneElse, useMe } from "#web/device/me.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Page, Panel, Waiting } from "#web/parts/page.tsx";
import { QrCode } from "#web/parts/qr.tsx";
import { toast } from "#web/parts/toast.tsx";
import { Asking } from "./asking.tsx";
import { Passkeys } from "./passkeys.tsx";

/** What someone does about their own signing in: passphrase, second factor, passkeys, devices. */
export function Screen() {
  const { data } = useMe();
  const me = data?.me;
  return (
    <Page place="My sign-in" title="My sign-in" about={me?.way === "signed-in" ? `You are ${me.name}.` : undefined}>
      {!me && <Waiting />}
      {me?.way === "machine" && (
        <p>
          You sit at the machine of a school that no one signs in to yet. The address with which it is set up was
          printed where Keen Sapling was started.
        </p>
      )}
      {me?.lacksSecond && (
        <div
          role="status"
          className="mb-4 flex flex-wrap items-center justify-between gap-3 rounded-md bg-leaf-pale px-4 py-3"
        >
          <p>
            Leads of your school sign in with a second factor. Set yours up here; then the school is open to you. Or
            make a passkey, sign out, and come in by it.
          </p>
          <Button
            onClick={() =>
              void call(signOut, {}).then(
                () => someoneElse("/"),
                (error) => toast.error(wordsOfError(error)),
              )
            }
          >
            Sign out
          </Button>
        </div>
      )}
      {me?.way === "signed-in" && (
        <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-2">
          <Passphrase />
          <SecondFactor on={me.secondFactor} />
          {!data?.device && <Passkeys />}
          {data?.device && <Code device={data.device.name} />}
          <Devices />
        </div>
      )}
    </Page>
  );
}

function Passphrase() {
  const [before, setBefore] = useState("");
  const [passphrase, setPassphrase] = useState("");
  return (
    <Panel title="Passphrase">
      <Asking
        action="Change it"
        send={async () => {
          await call(changePassphrase, { body: { before, passphrase } });
          setBefore("");
          setPassphrase("");
          return "Changed. Your other devices are signed out.";
        }}
      >
        {(problems) => (
          <>
            <TextField
              label="The one of now"
              type="password"
              autoComplete="current-password"
              required
              value={before}
              problem={problems.before ?? (passphrase === "" ? problems.passphrase : undefined)}
              onChange={(event) => setBefore(event.target.value)}
            />
            <TextField
              label="The new one"
              type="password"
              autoComplete="new-password"
              required
              value={passphrase}
              problem={problems.passphrase}
              hint={`${LEAST_PASSPHRASE} letters or more.`}
              onChange={(event) => setPassphrase(event.target.value)}
            />
          </>
        )}
      </Asking>
    </Panel>
  );
}

function SecondFactor({ on }: { on: boolean }) {
  const [passphrase, setPassphrase] = useState("");
  const [code, setCode] = useState("");
  const [begun, setBegun] = useState<AnswerOf<typeof beginSecondFactor>>();
  const asks = (problems: Readonly<Record<string, string>>) => (
    <TextField
      label="Your passphrase"
      type="password"
      autoComplete="current-password"
      required
      value={passphrase}
      problem={problems.passphrase}
      onChange={(event) => setPassphrase(event.target.value)}
    />
  );
  return (
    <Panel title="Second factor">
      <p className="mb-3">
        {on
          ? "Each sign-in asks for a code of your authenticator app as well."
          : "A code of an authenticator app beside the passphrase: whoever learns the one still lacks the other."}
      </p>
      {on && (
        <Asking
          action="Do without it again"
          send={async () => {
            await call(endSecondFactor, { body: { passphrase } });
            setPassphrase("");
            return "You sign in by your passphrase alone again.";
          }}
        >
          {asks}
        </Asking>
      )}
      {!on && !begun && (
        <Asking
          action="Set it up"
          send={async () => {
            setBegun(await call(beginSecondFactor, { body: { passphrase } }));
            setPassphrase("");
            return "";
          }}
        >
          {asks}
        </Asking>
      )}
      {!on && begun && (
        <Asking
          action="It shows this code"
          send={async () => {
            await call(confirmSecondFactor, { body: { code: code.replace(/\s/g, "") } });
            setBegun(undefined);
            setCode("");
            return "Set up. Each sign-in asks for a code from now on.";
          }}
        >
          {(problems) => (
            <>
              <p>Read this with the app, or type the key into it; then type the six figures that it shows.</p>
              <QrCode text={begun.address} label="The key for your app, to be read by a camera" />
              <p className="text-sm break-all">
                Key: <code>{begun.secret}</code>
              </p>
              <TextField
                label="Six figures"
                inputMode="numeric"
                autoComplete="one-time-code"
                required
                value={code}
                problem={problems.code}
                onChange={(event) => setCode(event.target.value)}
              />
            </>
          )}
        </Asking>
      )}
    </Panel>
  );
}

/** With what one comes in on this shared device. */
function Code({ device }: { device: string }) {
  const [code, setCode] = useState("");
  return (
    <Panel title={`Your code on ${device}`}>
      <p className="mb-3">Several people use this device: come in by a code, which is worth nothing anywhere else.</p>
      <Asking
        action="Set the code"
        send={async () => {
          await call(setMyCode, { body: { code } });
          setCode("");
          return "Set. You come in by it on this device.";
        }}
      >
        {(problems) => (
          <TextField
            label={`A code of ${LEAST_CODE} figures or more`}
            type="password"
            inputMode="numeric"
            autoComplete="off"
            required
            value={code}
            problem={problems.code}
            onChange={(event) => setCode(event.target.value)}
          />
        )}
      </Asking>
    </Panel>
  );
}

/** A browser and a machine, out of what the browser calls itself. */
function deviceOf(agent: string): string {
  const machine = /(iPad|iPhone|Android|Windows|Macintosh|CrOS|Linux)/.exec(agent)?.[1];
  const browser = /(Edg|Firefox|Chrome|Safari)\//.exec(agent)?.[1];
  const names: Readonly<Record<string, string>> = { Edg: "Edge", Macintosh: "Mac", CrOS: "Chromebook" };
  const said = [browser, machine].flatMap((one) => (one ? [names[one] ?? one] : []));
  return said.length > 0 ? said.join(" on ") : "A device";
}

function Devices() {
  const { data, error } = useAsk(listMyDevices, {});
  const doing = async (work: () => Promise<unknown>) => {
    try {
      await work();
      await refreshAll();
    } catch (problem) {
      toast.error(wordsOfError(problem));
    }
  };
  return (
    <Panel title="Where you are signed in" className="lg:col-span-2">
      {error && !data && <p>{wordsOfError(error)}</p>}
      <ul className="flex flex-col divide-y divide-line">
        {data?.map((one) => (
          <li key={one.id} className="flex items-center gap-3 py-2">
            <span className="flex-1">
              {deviceOf(one.device)}{" "}
              <span className="text-sm text-soft">
                {one.here ? "this device" : `last used ${nearDay(dayOfInstant(one.usedAt), todayHere())}`}, since{" "}
                {nearDay(dayOfInstant(one.since), todayHere())}
              </span>
            </span>
            {!one.here && (
              <Button
                aria-label={`Sign out on ${deviceOf(one.device)}`}
                onClick={() => doing(() => call(endMyDevice, { params: { id: one.id } }))}
              >
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
      {(data?.length ?? 0) > 1 && (
        <Button className="mt-2" onClick={() => doing(() => call(endMyOtherDevices, {}))}>
          Sign out everywhere else
        </Button>
      )}
    </Panel>
  );
}
