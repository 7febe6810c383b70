import {
  editSession,
  getGaps,
  getNumbers,
  getSession,
  getToday,
  invitePerson,
  isAtLeast,
  type May,
  type Role,
  readTrail,
  reportSession,
  roleSays,
  roles,
  saveGroup,
  saveReading,
  saveText,
  setCheckSettings,
  startSitting,
} from "#contract";

const names: Readonly<Record<Role, string>> = {
  lead: "Lead",
  teacher: "Teacher",
  assistant: "Assistant",
  observer: "Observer",
};

/** What is done, by what the server is asked for it: who may ask that stands in the contract and nowhere else. */
const doings: readonly (readonly [string, { readonly may: May }])[] = [
  ["See numbers without names", getNumbers],
  ["See what is due today", getToday],
  ["Open a session's card", getSession],
  ["Hand back what happened", reportSession],
  ["Listen to a text and keep the reading", saveReading],
  ["Check a child", startSitting],
  ["See the gap map", getGaps],
  ["Make and change groups", saveGroup],
  ["Plan and change sessions", editSession],
  ["Write a text", saveText],
  ["Change how the school checks", setCheckSettings],
  ["Invite people", invitePerson],
  ["Read who saw and did what", readTrail],
];

const mayDo = (role: Role, { by }: May): boolean =>
  by === "anyone" || by === "door" || (by !== "link" && isAtLeast(role, by));

/** Who may what, as the server lets them. */
export function Roles() {
  const shown = roles.toReversed();
  return (
    <>
      <ul className="mb-2 list-disc pl-5">
        {shown.map((role) => (
          <li key={role}>
            <b>{names[role]}</b>: {roleSays[role]}
          </li>
        ))}
      </ul>
      <table className="w-full max-w-2xl text-left">
        <thead>
          <tr className="border-b border-line">
            <th scope="col">What is theirs</th>
            {shown.map((role) => (
              <th key={role} scope="col">
                {names[role]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {doings.map(([doing, { may }]) => (
            <tr key={doing} className="border-b border-line">
              <th scope="row" className="py-1 font-normal">
                {doing}
              </th>
              {shown.map((role) => (
                <td key={role}>{mayDo(role, may) ? "yes" : <span className="text-soft">no</span>}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
