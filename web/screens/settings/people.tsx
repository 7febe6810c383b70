import { useState } from "react";
import {
  type AnswerOf,
  bringBackPerson,
  endInvitation,
  getGrouping,
  getSchool,
  invitePerson,
  listGroups,
  listPeople,
  type PersonView,
  type Role,
  removePerson,
  roleSays,
  roles,
} from "#contract";
import { nearDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { QrCode } from "#web/parts/qr.tsx";
import { toast } from "#web/parts/toast.tsx";
import { LeadsSecond } from "./leads-second.tsx";
import { Outbox, SendLink } from "./letter.tsx";
import { OpenLinks } from "./open-links.tsx";
import { PersonSheet } from "./person.tsx";
import { SharedDevices } from "./shared-devices.tsx";

const signsIn: Readonly<Record<PersonView["signsIn"], string>> = {
  none: "not invited yet",
  invited: "has a link, not used yet",
  yes: "signs in",
};

/** Who belongs to the school, as what, and how each comes in. */
export function Screen() {
  const { data, error } = useAsk(listPeople, {});
  const school = useAsk(getSchool, {});
  const groups = useAsk(listGroups, {});
  const grouping = useAsk(getGrouping, {});
  const [edited, setEdited] = useState<PersonView | "new">();
  const [link, setLink] = useState<{ of: PersonView; is: AnswerOf<typeof invitePerson> }>();
  const [going, setGoing] = useState<PersonView>();
  const classes = school.data?.classes.filter((one) => !one.archived) ?? [];
  const open = groups.data?.filter((one) => !one.closed) ?? [];
  const doing = async (work: () => Promise<unknown>, says?: string) => {
    try {
      await work();
      await refreshAll();
      if (says) toast(says);
    } catch (problem) {
      toast.error(wordsOfError(problem));
    }
  };
  const invite = (of: PersonView) =>
    doing(async () => setLink({ of, is: await call(invitePerson, { params: { id: of.id } }) }));
  return (
    <Page
      place="People"
      title="People"
      about="Who belongs to the school, and what each may see and do. Each signs in by their name, with a passphrase of their own."
      actions={
        <>
          <ButtonLink to="/settings/trail">Who saw and did what</ButtonLink>
          <Button shape="main" onClick={() => setEdited("new")}>
            Add a person
          </Button>
        </>
      }
    >
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting />}
      {data && (
        <div className="flex flex-col gap-4">
          {roles.toReversed().map((role) => (
            <RolePanel
              key={role}
              role={role}
              people={data.people.filter((one) => one.role === role)}
              nameOfClass={(id) => classes.find((one) => one.id === id)?.name}
              nameOfGroup={(id) => open.find((one) => one.id === id)?.name}
              onEdit={setEdited}
              onInvite={invite}
              onEndLink={(one) =>
                doing(() => call(endInvitation, { params: { id: one.id } }), `${one.name}'s link is ended.`)
              }
              onRemove={setGoing}
            />
          ))}
          {school.data && <LeadsSecond needed={data.leadsNeedSecond} version={school.data.version} />}
          {data.left.length > 0 && (
            <Left
              people={data.left}
              onBack={(one) =>
                doing(
                  () => call(bringBackPerson, { params: { id: one.id } }),
                  `${one.name} is here again. Say what is theirs, and invite them.`,
                )
              }
            />
          )}
          <Outbox />
          <SharedDevices />
          <OpenLinks />
        </div>
      )}
      {edited && data && (
        <PersonSheet
          person={edited === "new" ? undefined : edited}
          typed={data.typed}
          classes={classes}
          groups={open}
          adults={grouping.data?.grouping.adults ?? []}
          onClose={() => setEdited(undefined)}
        />
      )}
      {link && (
        <Sheet open onClose={() => setLink(undefined)} title={`A link for ${link.of.name}`}>
          <LinkToHand of={link.of} token={link.is.token} endsAt={link.is.endsAt} />
        </Sheet>
      )}
      {going && (
        <Sheet open onClose={() => setGoing(undefined)} title={`Take ${going.name} out?`}>
          <p className="mb-4">
            {going.name} is signed out everywhere and cannot come in any more. Marks, readings and sessions of theirs
            stay, under their name.
          </p>
          <div className="flex justify-end gap-2">
            <Button onClick={() => setGoing(undefined)}>Leave them in</Button>
            <Button
              shape="warn"
              onClick={async () => {
                await doing(() => call(removePerson, { params: { id: going.id } }), `${going.name} is out.`);
                setGoing(undefined);
              }}
            >
              Take out
            </Button>
          </div>
        </Sheet>
      )}
    </Page>
  );
}

interface RoleWanted {
  readonly role: Role;
  readonly people: readonly PersonView[];
  readonly nameOfClass: (id: string) => string | undefined;
  readonly nameOfGroup: (id: string) => string | undefined;
  readonly onEdit: (one: PersonView) => void;
  readonly onInvite: (one: PersonView) => void;
  readonly onEndLink: (one: PersonView) => void;
  readonly onRemove: (one: PersonView) => void;
}

const titles: Readonly<Record<Role, string>> = {
  lead: "Leads",
  teacher: "Teachers",
  assistant: "Assistants",
  observer: "Observers",
};

function RolePanel({ role, people, nameOfClass, nameOfGroup, ...on }: RoleWanted) {
  return (
    <Panel title={titles[role]}>
      <p className="mb-2 text-sm text-soft">{roleSays[role]}</p>
      {people.length === 0 && <p className="text-soft">No one yet.</p>}
      <ul className="flex flex-col divide-y divide-line">
        {people.map((one) => {
          const own = [...one.classIds.map(nameOfClass), ...one.groupIds.map(nameOfGroup)].filter(Boolean);
          return (
            <li key={one.id} className="flex flex-wrap items-center gap-x-4 gap-y-2 py-2.5">
              <div className="min-w-0 flex-1 basis-64">
                <p>
                  <span className="font-semibold">{one.name}</span>{" "}
                  <span className="text-sm text-soft">
                    {signsIn[one.signsIn]}
                    {one.secondFactor && ", with a second factor"}
                  </span>
                </p>
                {role !== "lead" && (
                  <p className="text-sm">{own.length > 0 ? own.join(", ") : "Nothing is theirs yet."}</p>
                )}
                {one.typedNames.length > 0 && (
                  <p className="text-sm text-soft">Marks by {one.typedNames.join(", ")} are theirs too.</p>
                )}
              </div>
              <div className="flex flex-wrap gap-1.5">
                <Button aria-label={`Edit ${one.name}`} onClick={() => on.onEdit(one)}>
                  Edit
                </Button>
                <Button
                  aria-label={`${one.signsIn === "yes" ? "Let in again" : "Invite"}: ${one.name}`}
                  onClick={() => on.onInvite(one)}
                >
                  {one.signsIn === "yes" ? "Let in again" : one.signsIn === "invited" ? "New link" : "Invite"}
                </Button>
                {one.signsIn === "invited" && (
                  <Button aria-label={`End the link of ${one.name}`} onClick={() => on.onEndLink(one)}>
                    End link
                  </Button>
                )}
                <Button shape="quiet" aria-label={`Take ${one.name} out`} onClick={() => on.onRemove(one)}>
                  Take out
                </Button>
              </div>
            </li>
          );
        })}
      </ul>
    </Panel>
  );
}

type Leaver = AnswerOf<typeof listPeople>["left"][number];

/** Those who left, whose marks carry their names: a press lets someone in again. */
function Left({ people, onBack }: { people: readonly Leaver[]; onBack: (one: Leaver) => void }) {
  return (
    <Panel title="Left the school">
      <p className="mb-2 text-sm text-soft">
        What they marked stays under their names, which no one else can have. Whoever returns finds it as theirs.
      </p>
      <ul className="flex flex-col divide-y divide-line">
        {people.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center gap-x-4 gap-y-2 py-2.5">
            <p className="min-w-0 flex-1 basis-64">
              <span className="font-semibold">{one.name}</span>{" "}
              <span className="text-sm text-soft">
                {one.role}, left {nearDay(dayOfInstant(one.leftAt), todayHere())}
              </span>
            </p>
            <Button aria-label={`Bring ${one.name} back`} onClick={() => onBack(one)}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </Panel>
  );
}

function LinkToHand({ of, token, endsAt }: { of: PersonView; token: string; endsAt: string }) {
  const address = `${location.origin}/invited/${token}`;
  const until = new Date(endsAt).toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "long" });
  return (
    <div className="flex flex-col gap-3">
      <p>
        With it {of.name} chooses a passphrase and is in. It works once, until {until}.
        {of.signsIn === "yes" && " When it is used, their passphrase of now and all of their sign-ins end."}
      </p>
      <QrCode text={address} label={`The link of ${of.name}, to be read by a camera`} />
      <input
        readOnly
        aria-label="The link"
        value={address}
        className="w-full rounded-md border border-line bg-paper px-2.5 py-1.5 text-sm"
        onFocus={(event) => event.target.select()}
      />
      <Button
        className="self-start"
        onClick={async () => {
          await navigator.clipboard.writeText(address);
          toast("Copied.");
        }}
      >
        Copy the link
      </Button>
      <SendLink of={of} token={token} />
      <p className="text-sm text-soft">
        It is shown here alone, and stands in a letter that is sent. Make a new one when it is lost.
      </p>
    </div>
  );
}
