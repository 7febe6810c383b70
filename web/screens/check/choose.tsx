import { startTransition, useMemo, useOptimistic } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { type ChildView, type ClassView, getSchool, listChildren, listGroups, listPresets } from "#contract";
import { nearDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Empty, Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { ChildrenList } from "./children-list.tsx";
import { PlanEditor } from "./plan-editor.tsx";

const about = "Choose who and what. One key or one tap marks each answer, and every wrong one is explained.";

/** So many who were not checked for longest are offered. */
const OFFERED = 10;

/** Before anyone is chosen: who was not checked for longest, to press. */
function Longest({
  all,
  classes,
  today,
  onChoose,
}: {
  all: readonly ChildView[];
  classes: readonly ClassView[];
  today: string;
  onChoose: (ids: readonly string[]) => void;
}) {
  const first = [...all]
    .sort((one, other) => (one.lastChecked ?? "").localeCompare(other.lastChecked ?? ""))
    .slice(0, OFFERED);
  return (
    <Panel title="Not checked for longest">
      <ul className="flex flex-col divide-y divide-line">
        {first.map((child) => (
          <li key={child.id} className="flex items-center gap-3 py-1.5">
            <span className="flex-1">
              <span className="font-semibold">{child.name}</span>{" "}
              <span className="text-sm text-soft">
                {classes.find((one) => one.id === child.classId)?.name},{" "}
                {child.lastChecked ? `last ${nearDay(child.lastChecked, today)}` : "not checked yet"}
              </span>
            </span>
            <Button aria-label={`Choose ${child.name}`} onClick={() => onChoose([child.id])}>
              Choose
            </Button>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-soft">
        Or choose on the left; several are checked in a row. A plan that fits is suggested then.
      </p>
    </Panel>
  );
}

/** Who is checked, and with which plan. */
export function Screen() {
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const asked = useMemo(() => search.getAll("child"), [search]);
  // Ticked at once, also where the address takes a moment to follow: the next tick counts from this one.
  const [ticked, tick] = useOptimistic<readonly string[]>(asked);
  const school = useAsk(getSchool, {});
  const children = useAsk(listChildren, {});
  const groups = useAsk(listGroups, {});
  const presets = useAsk(listPresets, {});
  const classes = useMemo(() => school.data?.classes.filter((one) => !one.archived) ?? [], [school.data]);
  const error = children.error ?? school.error ?? presets.error;
  if (error && !(children.data && school.data && presets.data))
    return (
      <Page place="Check" title="Check">
        <Trouble error={error} />
      </Page>
    );
  if (!children.data || !school.data || !presets.data)
    return (
      <Page place="Check" title="Check">
        <Waiting />
      </Page>
    );
  const here = children.data.filter((child) => !child.archived && classes.some((one) => one.id === child.classId));
  const chosen = ticked.filter((id) => here.some((child) => child.id === id));
  const choose = (ids: readonly string[]) =>
    startTransition(async () => {
      tick(ids);
      const plan = search.get("plan");
      const next = new URLSearchParams([...(plan ? [["plan", plan]] : []), ...ids.map((id) => ["child", id])]);
      await navigate({ search: next.toString() }, { replace: true });
    });
  return (
    <Page place="Check" title="Check" about={about}>
      {here.length === 0 ? (
        <Empty
          action={
            <ButtonLink to="/class" shape="main">
              Go to Class
            </ButtonLink>
          }
        >
          Here you check what a child says, reads, hears and writes. It begins with a class list.
        </Empty>
      ) : (
        <div className="grid grid-cols-1 items-start gap-4 md:grid-cols-[18rem_1fr]">
          <ChildrenList
            all={here}
            classes={classes}
            groups={groups.data?.filter((group) => !group.closed) ?? []}
            today={school.data.today}
            chosen={chosen}
            onChoose={choose}
          />
          {chosen.length > 0 ? (
            <PlanEditor
              chosen={chosen.flatMap((id) => here.find((child) => child.id === id) ?? [])}
              school={school.data}
              presets={presets.data}
            />
          ) : (
            <Longest all={here} classes={classes} today={school.data.today} onChoose={choose} />
          )}
        </div>
      )}
    </Page>
  );
}
