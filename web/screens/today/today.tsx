import { ClipboardCheck, Play, UserRound } from "lucide-react";
import { lazy, type ReactNode, Suspense } from "react";
import { Link } from "react-router";
import {
  getMoves,
  getSchool,
  getSecondLooks,
  getToday,
  listGroups,
  type Today as TodayView,
  unreadNotes,
} from "#contract";
import { targetsIn } from "#core/groups";
import { nearDay, plural, shortDay } from "#core/saying";
import { isOnItsWay, useAsk, useAskSliced, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant } from "#web/device/clock.ts";
import { type GivenTo, useGiven, useWhose, type Whose } from "#web/device/given.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { useMoves } from "#web/device/moves.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { GivenSelect } from "#web/parts/given.tsx";
import { Spelling } from "#web/parts/marks.tsx";
import { Moves } from "#web/parts/moves.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { TargetMarks } from "#web/parts/target-marks.tsx";
import { MeetingsToday } from "./meetings.tsx";
import { NewNotes } from "./new-notes.tsx";
import { SecondLooks } from "./second-looks.tsx";

// A school needs them once.
const ZoneNote = lazy(async () => ({ default: (await import("./first-run.tsx")).ZoneNote }));
const FirstRun = lazy(async () => ({ default: (await import("./first-run.tsx")).FirstRun }));

/** The first place: what waits, what was last done, and the next step of each group. */
export function Today() {
  const { data, error } = useAskSliced(getToday, {}, { revalidateOnMount: true });
  const school = useAsk(getSchool, {});
  // They stand above all else: nothing is to move down under a finger when they come.
  const notes = useAsk(unreadNotes, {});
  const lead = useIsAtLeast("lead");
  const about = data ? shortDay(data.today, data.today) : undefined;
  return (
    <Page place="Today" title="Today" about={about}>
      {error && !data ? (
        <Trouble error={error} />
      ) : !data || !school.data || isOnItsWay(notes) ? (
        <Waiting rows={9} />
      ) : (
        <Suspense fallback={<Waiting rows={9} />}>
          {lead && !school.data.zoneChosen && <ZoneNote version={school.data.version} />}
          {lead && school.data.classes.length === 0 ? (
            <FirstRun named={school.data.name !== ""} version={school.data.version} />
          ) : (
            <Desk data={data} timeZone={school.data.timeZone} />
          )}
        </Suspense>
      )}
    </Page>
  );
}

function Desk({ data, timeZone }: { data: TodayView; timeZone: string }) {
  const { today } = data;
  // What stands in the week of today is there already.
  const inWeek = new Set(data.meetings.map(({ sessionId }) => sessionId));
  const whose = useWhose();
  const due = data.sessions.filter(
    ({ id, state, heldOn, givenTo }) =>
      state === "planned" && (heldOn <= today || whose(givenTo) === "mine") && !inWeek.has(id),
  );
  const waits = due.length + data.openSittings.length;
  const teaches = useIsAtLeast("teacher");
  // What takes longer to work out stands above the rest of its column, which is shown when all of it is there.
  const asking = teaches ? {} : null;
  const worked = [useAsk(getSecondLooks, asking), useAsk(getMoves, asking), useAsk(listGroups, asking)];
  const beside = teaches && worked.some(isOnItsWay);
  return (
    <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
      <div className="flex flex-col gap-4">
        <NewNotes today={today} />
        <MeetingsToday meetings={data.meetings} timeZone={timeZone} />
        <Panel title={waits > 0 ? "Waiting for you" : "Nothing waits"}>
          {waits === 0 && (
            <p className="text-soft">
              No check is open and no session is due.
              {teaches && " The children who were not checked for longest stand on the right."}
            </p>
          )}
          <ul className="flex flex-col divide-y divide-line">
            {mineFirst(data.openSittings, whose).map((sitting) => (
              <Row
                key={sitting.id}
                icon={<ClipboardCheck size={18} aria-hidden />}
                link={`/check/${sitting.id}`}
                action="Go on"
                beside={teaches && <Given thing={sitting} />}
              >
                {sitting.name} with <strong>{childrenInWords(sitting.children)}</strong>: {sitting.asked} of{" "}
                {sitting.items} asked
                <SaysGiven givenTo={sitting.givenTo} whose={whose(sitting.givenTo)} />
              </Row>
            ))}
            {mineFirst(due, whose).map((session) => (
              <Row
                key={session.id}
                icon={<Play size={18} aria-hidden />}
                link={`/sessions/${session.id}`}
                action="Open card"
                beside={teaches && <Given thing={{ ...session, name: session.groupName }} />}
              >
                <strong>{session.groupName}</strong>{" "}
                {session.about ? (
                  <>works on {session.about}</>
                ) : (
                  <>
                    learns <Spelling gpc={session.target} />
                  </>
                )}{" "}
                {nearDay(session.heldOn, today)}
                <SaysGiven givenTo={session.givenTo} whose={whose(session.givenTo)} />
              </Row>
            ))}
          </ul>
        </Panel>
        <Panel
          title="Groups and their next step"
          actions={teaches && <ButtonLink to="/groups/new">Make groups</ButtonLink>}
        >
          {data.groups.length === 0 && (
            <p className="text-soft">
              {teaches
                ? "No group yet. Check a few children, then let the tool propose groups."
                : "No group is given to you yet. The lead of your school does that."}
            </p>
          )}
          <ul className="flex flex-col divide-y divide-line">
            {data.groups.map((group) => (
              <li key={group.id} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-2">
                <div className="min-w-40 flex-1">
                  <Link
                    to={`/groups/${group.id}`}
                    className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
                  >
                    {group.name}
                  </Link>
                  <p className="text-sm text-soft">
                    {plural(group.members, "child", "children")}
                    {group.lastHeld ? `, last session ${nearDay(group.lastHeld, today)}` : ", no session yet"}
                  </p>
                </div>
                <TargetMarks targets={targetsIn(group)} none="no target yet" />
                {group.next ? (
                  <ButtonLink to={`/sessions/${group.next.id}`}>
                    Session {nearDay(group.next.heldOn, today)}
                  </ButtonLink>
                ) : (
                  teaches && (
                    <ButtonLink to={`/groups/${group.id}?plan=1`} shape="main">
                      Plan a session
                    </ButtonLink>
                  )
                )}
              </li>
            ))}
          </ul>
        </Panel>
        {data.reports.length > 0 && (
          <Panel title="What happened, from colleagues">
            <ul className="flex flex-col divide-y divide-line">
              {data.reports.map((report) => (
                <li key={`${report.sessionId} ${report.at}`} className="py-2">
                  <p>
                    <Link
                      to={`/sessions/${report.sessionId}`}
                      className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
                    >
                      {report.groupName}
                    </Link>{" "}
                    with {report.by}, {nearDay(dayOfInstant(report.at), today)}: {report.came} of {report.of} came
                  </p>
                  {report.note && <p className="text-soft">{report.note}</p>}
                </li>
              ))}
            </ul>
          </Panel>
        )}
      </div>
      {beside && <Waiting rows={9} />}
      <div className={`flex flex-col gap-4 ${beside ? "hidden" : ""}`}>
        {teaches && <SecondLooks />}
        {teaches && <TheMoves today={today} />}
        {teaches && (
          <Panel title="Not checked for longest" actions={<ButtonLink to="/check">Choose a child</ButtonLink>}>
            {data.toCheck.length === 0 && <p className="text-soft">No child is in a class yet.</p>}
            <ul className="flex flex-col divide-y divide-line">
              {data.toCheck.map((child) => (
                <Row
                  key={child.id}
                  icon={<UserRound size={16} aria-hidden />}
                  link={`/check?child=${child.id}`}
                  action="Check"
                >
                  <strong>{child.name}</strong>{" "}
                  <span className="text-soft">
                    {child.className}, {child.lastChecked ? nearDay(child.lastChecked, today) : "never checked"}
                  </span>
                </Row>
              ))}
            </ul>
          </Panel>
        )}
        {data.lastDone.length > 0 && (
          <Panel title="Last done">
            <ul className="flex flex-col gap-1.5">
              {data.lastDone.map((entry) => (
                <li key={linkOf(entry) + entry.at} className="flex justify-between gap-3">
                  <Link
                    to={linkOf(entry)}
                    className="underline decoration-line underline-offset-4 hover:decoration-ink"
                  >
                    {saysDone(entry)}
                  </Link>
                  <span className="whitespace-nowrap text-sm text-soft">
                    {nearDay(dayOfInstant(entry.at), today)}
                  </span>
                </li>
              ))}
            </ul>
          </Panel>
        )}
      </div>
    </div>
  );
}

/** What is given to whoever looks, then what is no one's, then what is given to others; each as it came. */
function mineFirst<T extends { readonly givenTo: GivenTo }>(
  things: readonly T[],
  whose: ReturnType<typeof useWhose>,
): readonly T[] {
  const order: readonly Whose[] = ["mine", "anyones", "others"];
  const rank = ({ givenTo }: T) => order.indexOf(whose(givenTo));
  return [...things].sort((one, other) => rank(one) - rank(other));
}

function SaysGiven({ givenTo, whose }: { givenTo: GivenTo; whose: Whose }) {
  if (givenTo === null) return null;
  return (
    <span className={whose === "mine" ? "font-semibold" : "text-soft"}>
      , given to {whose === "mine" ? "you" : givenTo.name}
    </span>
  );
}

function Given({ thing }: { thing: { readonly id: string; readonly name: string; readonly givenTo: GivenTo } }) {
  return <GivenSelect name={thing.name} anyone="for anyone" {...useGiven(thing)} />;
}

type Done = TodayView["lastDone"][number];

function linkOf(done: Done): string {
  return done.kind === "check"
    ? `/check/${done.sittingId}/result?child=${done.childId}`
    : `/sessions/${done.sessionId}`;
}

function saysDone(done: Done): string {
  return done.kind === "check" ? `Checked ${done.childName}` : `${done.by} held a session with ${done.groupName}`;
}

function childrenInWords(names: readonly string[]): string {
  return names.length <= 2 ? names.join(" and ") : `${names[0]} and ${names.length - 1} others`;
}

function Row({
  icon,
  link,
  action,
  beside,
  children,
}: {
  icon: ReactNode;
  link: string;
  action: string;
  beside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <li className="flex items-center gap-3 py-1.5">
      <span className="text-soft">{icon}</span>
      <span className="min-w-0 flex-1">{children}</span>
      {beside}
      <ButtonLink to={link}>{action}</ButtonLink>
    </li>
  );
}

/** Changes of groups that the answers speak for, as they stand. */
function TheMoves({ today }: { today: string }) {
  const desk = useMoves(today);
  return desk ? <Moves {...desk} today={today} shortly wordsOf={wordsOfError} /> : null;
}
