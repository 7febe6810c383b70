import { getGroup, getSchool, listMeetings, listSessions } from "#contract";
import { dayLater, targetsIn } from "#core/groups";
import { nearDay, timeInWords } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { useNotes } from "#web/device/notes.ts";
import { Notes } from "#web/parts/notes.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { TargetMarks } from "#web/parts/target-marks.tsx";
import { GroupSessions } from "./group-sessions.tsx";

/** Days ahead of which the times are shown. */
const DAYS = 13;

/** A group as whoever runs its sessions sees it: who is in it, what it works on, when it meets, its cards. */
export function GivenGroup({ groupId }: { groupId: string }) {
  const group = useAsk(getGroup, { params: { id: groupId } });
  const school = useAsk(getSchool, {});
  const sessions = useAsk(listSessions, { query: { groupId } });
  const today = school.data?.today;
  const meetings = useAsk(listMeetings, today ? { query: { from: today, to: dayLater(today, DAYS) } } : null);
  const notes = useNotes({ groupId });
  const { data, error } = group;
  if (error && !data)
    return (
      <Page place="Group" title="Group">
        <Trouble error={error} />
      </Page>
    );
  if (!data || !today)
    return (
      <Page place="Group" title="Group">
        <Waiting rows={9} />
      </Page>
    );
  const times = meetings.data?.meetings.filter((one) => one.groupId === groupId && !one.cancelled) ?? [];
  return (
    <Page place="Group" title={data.name} about={data.closed ? "This group is closed." : undefined}>
      <div className="grid grid-cols-1 items-start gap-4 md:grid-cols-2">
        <div className="flex flex-col gap-4">
          <Panel title="Children">
            {data.members.length === 0 && <p className="text-soft">No one is in it now.</p>}
            <ul className="flex flex-col gap-1">
              {data.members.map(({ childId, name }) => (
                <li key={childId}>{name}</li>
              ))}
            </ul>
          </Panel>
          <Panel title="Works on">
            <TargetMarks targets={targetsIn(data)} none="no target yet" />
          </Panel>
          {times.length > 0 && (
            <Panel title="When it meets">
              <ul className="flex flex-col gap-1">
                {times.map(({ id, on, from, adultName, roomName }) => (
                  <li key={id}>
                    {nearDay(on, today)} {timeInWords(from)}{" "}
                    <span className="text-soft">{[adultName, roomName].filter(Boolean).join(" · ")}</span>
                  </li>
                ))}
              </ul>
            </Panel>
          )}
        </div>
        <div className="flex flex-col gap-4">
          <GroupSessions sessions={sessions.data} today={today} />
          {notes && <Notes {...notes} today={today} all="everyone who has this group" />}
        </div>
      </div>
    </Page>
  );
}
