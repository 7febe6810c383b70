import { Command, defaultFilter } from "cmdk";
import { type ReactNode, useState } from "react";
import { useNavigate } from "react-router";
import { getSchool, listChildren, listGroups, listPresets, listSessions, listTexts } from "#contract";
import { nearDay, plural } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { useTheme } from "#web/device/settings.ts";
import { useOpenSheet } from "#web/parts/open-sheets.ts";
import { useReturnFocus } from "#web/parts/return-focus.ts";
import { usePlaces } from "./places.ts";

const heading =
  "[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:text-soft";
const MOST_SESSIONS = 40;

interface Found {
  readonly id: string;
  /** What is typed to find it. */
  readonly name: string;
  /** What stands at its right. */
  readonly beside?: ReactNode;
  readonly go: string | (() => void);
}

/** Finds by typing: a child, a class, a group, a plan, a session, a text, a word, a place, and what can be done. */
export function Palette({ open, onClose }: { open: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const { dark, toggle } = useTheme();
  const [typed, setTyped] = useState("");
  useOpenSheet(open, onClose);
  useReturnFocus(open);
  const children = useAsk(listChildren, open ? {} : null);
  const groups = useAsk(listGroups, open ? {} : null);
  const school = useAsk(getSchool, open ? {} : null);
  const texts = useAsk(listTexts, open ? {} : null, { revalidateOnFocus: false });
  const presets = useAsk(listPresets, open ? {} : null);
  const sessions = useAsk(listSessions, open ? { query: {} } : null);
  // A word is offered when all else is here: what is offered first is what Enter chooses.
  const isHere = [children, groups, texts, sessions].every(({ data, error }) => data ?? error);
  const today = school.data?.today ?? "";
  const classes = (school.data?.classes ?? []).filter((one) => !one.archived);
  const classOf = (id: string) => classes.find((one) => one.id === id)?.name ?? "";
  const openGroups = (groups.data ?? []).filter((group) => !group.closed);
  const word = typed.trim();
  const { places, besides } = usePlaces();
  const [teaches, leads] = [useIsAtLeast("teacher"), useIsAtLeast("lead")];

  const run = (go: Found["go"]) => () => {
    onClose();
    setTyped("");
    if (typeof go === "string") navigate(go);
    // The sheet that it closes must be gone, so that it is not on the paper.
    else setTimeout(go, 50);
  };
  const lists: readonly (readonly [string, readonly Found[]])[] = [
    [
      "Places",
      [...places, ...besides].map(({ path, name, key }) => ({ id: path, name, beside: `g ${key}`, go: path })),
    ],
    [
      "What can be done",
      [
        ...(teaches
          ? [
              { id: "check", name: "Check a child", go: "/check" },
              { id: "groups", name: "Make groups", go: "/groups/new" },
              { id: "text", name: "Add a text", go: "/texts/new" },
            ]
          : []),
        ...(leads
          ? [
              { id: "class", name: "Add a class", go: "/class?add=1" },
              { id: "people", name: "People of the school", go: "/settings/people" },
            ]
          : []),
        ...(teaches ? [{ id: "list", name: "Paste a class list", go: "/import" }] : []),
        { id: "dark", name: dark ? "Light" : "Dark", go: toggle },
        { id: "print", name: "Print this page", go: () => window.print() },
        ...(teaches ? openGroups : []).map((group) => ({
          id: `plan ${group.id}`,
          name: `Plan a session for ${group.name}`,
          go: `/groups/${group.id}?plan=1`,
        })),
      ],
    ],
    [
      "Children",
      (teaches ? (children.data ?? []) : [])
        .filter((child) => !child.archived)
        .map(({ id, name, classId }) => ({ id, name, beside: classOf(classId), go: `/child/${id}` })),
    ],
    [
      "Classes",
      classes.map(({ id, name, children: count }) => ({
        id,
        name,
        beside: plural(count, "child", "children"),
        go: `/class/${id}`,
      })),
    ],
    [
      "Groups",
      openGroups.map(({ id, name, members }) => ({
        id,
        name,
        beside: plural(members.length, "child", "children"),
        go: `/groups/${id}`,
      })),
    ],
    [
      "Sessions",
      (sessions.data ?? []).slice(0, MOST_SESSIONS).map(({ id, groupName, heldOn, state }) => ({
        id,
        name: `${groupName}, ${nearDay(heldOn, today)}`,
        beside: state,
        go: `/sessions/${id}`,
      })),
    ],
    [
      "Plans of checks",
      (presets.data ?? []).map(({ id, name, purpose }) => ({ id, name, beside: purpose, go: `/check?plan=${id}` })),
    ],
    [
      "Texts",
      (texts.data ?? []).map(({ id, title, own }) => ({
        id,
        name: title,
        beside: own ? "ours" : "",
        go: `/texts/${id}`,
      })),
    ],
  ];
  const what = "Find a child, a class, a word, a text, something to do";
  return (
    <Command.Dialog
      open={open}
      onOpenChange={(now) => !now && onClose()}
      label={what}
      filter={(value, search, keywords) =>
        value.startsWith("word ") ? 0.001 : defaultFilter(value, search, keywords)
      }
      overlayClassName="fixed inset-0 z-40 bg-black/30"
      contentClassName="fixed left-1/2 top-[12vh] z-50 w-[34rem] max-w-[94vw] -translate-x-1/2 rounded-lg border border-line bg-sheet p-2 shadow-xl"
    >
      <Command.Input
        value={typed}
        onValueChange={setTyped}
        placeholder={what}
        aria-label={what}
        className="w-full rounded-md border border-line bg-paper px-3 py-2"
      />
      <Command.List aria-label="What was found" className="mt-1 max-h-[50vh] overflow-y-auto">
        <Command.Empty className="px-2 py-4 text-soft">Nothing has that name.</Command.Empty>
        {lists.map(([title, found]) => (
          <Command.Group key={title} heading={title} className={heading}>
            {found.map(({ id, name, beside, go }) => (
              <Item key={id} value={`${title} ${name} ${id}`} onSelect={run(go)} beside={beside}>
                {name}
              </Item>
            ))}
          </Command.Group>
        ))}
        {isHere && /^[a-z][a-z'-]{0,38}$/i.test(word) && (
          <Command.Group heading="Words" className={heading}>
            <Item value={`word ${word}`} onSelect={run(`/words?look=${encodeURIComponent(word)}`)}>
              <span>
                Look at <em>{word}</em>
              </span>
            </Item>
          </Command.Group>
        )}
      </Command.List>
    </Command.Dialog>
  );
}

function Item({
  value,
  onSelect,
  beside,
  children,
}: {
  value: string;
  onSelect: () => void;
  beside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <Command.Item
      value={value}
      onSelect={onSelect}
      className="flex cursor-pointer justify-between gap-3 rounded px-2 py-1.5 data-[selected=true]:bg-leaf-pale"
    >
      {children}
      {beside && <span className="truncate text-soft">{beside}</span>}
    </Command.Item>
  );
}
