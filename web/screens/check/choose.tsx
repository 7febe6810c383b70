import { useMemo } from "react";
import { useSearchParams } from "react-router";
import { getSchool, listChildren, listGroups, listPresets } from "#contract";
import { useAsk } from "#web/app/api.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Empty, Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { ChildrenList } from "./children-list.tsx";
import { PlanEditor } from "./plan-editor.tsx";

const about = "Choose who and what. One key or one tap marks each answer, and every wrong one is explained.";

/** Who is checked, and with which plan. */
export function Screen() {
  const [search, setSearch] = useSearchParams();
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
  const chosen = search.getAll("child").filter((id) => here.some((child) => child.id === id));
  const choose = (ids: readonly string[]) =>
    setSearch(new URLSearchParams(ids.map((id) => ["child", id])), { replace: true });
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
        <div className="grid items-start gap-4 md:grid-cols-[18rem_1fr]">
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
            <Empty>Choose a child on the left, or several to check them in a row. A plan is suggested then.</Empty>
          )}
        </div>
      )}
    </Page>
  );
}
