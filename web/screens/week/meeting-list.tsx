import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Meetings } from "#contract";
import { shortDay, timeInWords } from "#core/saying";

type Meeting = Meetings["meetings"][number];

/** Sessions one under the other, by their days. */
export function MeetingList({
  meetings,
  today,
  action,
}: {
  meetings: readonly Meeting[];
  today: string;
  action?: (meeting: Meeting) => ReactNode;
}) {
  if (meetings.length === 0) return <p className="text-soft">No session in this week.</p>;
  return (
    <ul className="flex flex-col divide-y divide-line">
      {meetings.map((one) => (
        <li key={one.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-1.5">
          <span className="w-44 tabular-nums">
            {shortDay(one.on, today)}, {timeInWords(one.from)} to {timeInWords(one.to)}
          </span>
          <span className="min-w-40 flex-1">
            <Link
              to={`/groups/${one.groupId}`}
              className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
            >
              {one.groupName}
            </Link>{" "}
            <span className="text-soft">{[one.adultName, one.roomName].filter(Boolean).join(" · ")}</span>
            {one.cancelled && <span className="text-damson"> does not meet</span>}
            {!one.cancelled && one.byHand && <span className="text-damson"> changed for this day</span>}
          </span>
          {action?.(one)}
        </li>
      ))}
    </ul>
  );
}
