import { Archive, Download, Plus, Upload } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import {
  type ChildView,
  type ClassView,
  editChild,
  getSchool,
  listChildren,
  type School,
  setAbsent,
} from "#contract";
import { nearDay, plural } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { downloadCsv } from "#web/parts/download-csv.ts";
import { Empty, Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { has, SearchField } from "#web/parts/search.tsx";
import { Table } from "#web/parts/table.tsx";
import { toast } from "#web/parts/toast.tsx";
import { NextOf } from "./next-best.tsx";
import { TaughtPanel } from "./taught.tsx";

const ChildDialog = lazy(() => import("./child-dialog.tsx").then((module) => ({ default: module.ChildDialog })));
const ClassDialog = lazy(() => import("./class-dialog.tsx").then((module) => ({ default: module.ClassDialog })));

/** The children of a class, and how far it has been taught. */
export function Screen() {
  const lead = useIsAtLeast("lead");
  const { classId } = useParams();
  const school = useAsk(getSchool, {});
  const [search, setSearch] = useSearchParams();
  // The palette leads here with the dialog open.
  const adding = search.get("add") === "1";
  const setAdding = (on: boolean) => setSearch(on ? { add: "1" } : {}, { replace: true });
  if (school.error && !school.data)
    return (
      <Page place="Class" title="Class">
        <Trouble error={school.error} />
      </Page>
    );
  if (!school.data)
    return (
      <Page place="Class" title="Class">
        <Waiting rows={10} />
      </Page>
    );
  const current =
    school.data.classes.find((one) => one.id === classId) ??
    (classId ? undefined : school.data.classes.find((one) => !one.archived));
  return (
    <>
      {current ? (
        <OneClass key={current.id} school={school.data} current={current} onAdd={() => setAdding(true)} />
      ) : (
        <Page place="Class" title="Class">
          <Empty
            action={
              lead && (
                <Button shape="main" onClick={() => setAdding(true)}>
                  Add a class
                </Button>
              )
            }
          >
            {!lead
              ? "No class of this kind is yours. The lead of your school gives classes to people."
              : classId
                ? "This class is not here any more. Choose another on the left, or add one."
                : "A class has a name, the teaching order it follows, and its children. Paste the children from a spreadsheet in the next step."}
          </Empty>
        </Page>
      )}
      <Suspense>{adding && <ClassDialog school={school.data} onClose={() => setAdding(false)} />}</Suspense>
    </>
  );
}

function ClassTabs({ school, current, onAdd }: { school: School; current: ClassView; onAdd: () => void }) {
  const lead = useIsAtLeast("lead");
  return (
    <nav aria-label="Classes" className="mb-4 flex flex-wrap items-center gap-1.5 border-b border-line pb-2">
      {school.classes
        .filter((one) => !one.archived || one.id === current.id)
        .map((one) => (
          <Link
            key={one.id}
            to={`/class/${one.id}`}
            aria-current={one.id === current.id ? "page" : undefined}
            className={`rounded-md px-3 py-1.5 ${one.id === current.id ? "bg-leaf-pale font-semibold" : "hover:bg-leaf-pale/60"}`}
          >
            {one.name} <span className="text-soft">{one.children}</span>
          </Link>
        ))}
      {lead && (
        <Button shape="quiet" onClick={onAdd}>
          <Plus size={16} aria-hidden /> Add a class
        </Button>
      )}
    </nav>
  );
}

function OneClass({ school, current, onAdd }: { school: School; current: ClassView; onAdd: () => void }) {
  const children = useAsk(listChildren, { query: { classId: current.id } });
  const [dialog, setDialog] = useState<"edit class" | "new child" | ChildView | null>(null);
  const [archived, setArchived] = useState(false);
  const shown = (children.data ?? []).filter((child) => child.archived === archived);
  const [wanted, setWanted] = useState("");
  const found = shown.filter((child) => has(wanted, child.name, child.note));
  const hidden = (children.data ?? []).filter((child) => child.archived).length;

  const exportCsv = () => {
    const rows = (children.data ?? [])
      .filter((child) => !child.archived)
      .map((child) => [child.name, current.name, child.note]);
    downloadCsv(`${current.name}.csv`, [["name", "class", "note"], ...rows]);
  };
  const bringBack = async (child: ChildView) => {
    try {
      await call(editChild, { params: { id: child.id }, body: { archived: false, version: child.version } });
      await refreshAll();
      toast(`${child.name} is back in ${current.name}.`);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };

  const sayAbsent = async (child: ChildView, absent: boolean) => {
    try {
      await call(setAbsent, { params: { id: child.id }, body: { absent } });
      await refreshAll();
      toast(absent ? `${child.name} is absent today; lists and sessions follow.` : `${child.name} is here.`);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };

  return (
    <Page
      printsTitle
      place="Class"
      title={current.name}
      about={[current.yearGroup, plural(current.children, "child", "children")].filter(Boolean).join(", ")}
      actions={
        <>
          <Button onClick={() => setDialog("new child")}>
            <Plus size={16} aria-hidden /> Add a child
          </Button>
          <ButtonLink to={`/import?class=${current.id}`} shape={current.children === 0 ? "main" : "plain"}>
            <Upload size={16} aria-hidden /> Paste a class list
          </ButtonLink>
          <Button onClick={exportCsv} disabled={shown.length === 0}>
            <Download size={16} aria-hidden /> Export CSV
          </Button>
          <Button onClick={() => setDialog("edit class")}>Edit class</Button>
        </>
      }
    >
      <ClassTabs school={school} current={current} onAdd={onAdd} />
      <div className="mb-4 grid grid-cols-1 items-start gap-4 lg:grid-cols-2">
        <TaughtPanel school={school} current={current} />
        {current.children > 0 && (
          <div className="no-print">
            <NextOf classId={current.id} whose={{ classId: current.id }} today={school.today} />
          </div>
        )}
      </div>
      {children.error && !children.data && <Trouble error={children.error} />}
      {!children.data && !children.error && <Waiting rows={10} />}
      {children.data && shown.length === 0 && (
        <Empty
          action={
            archived ? (
              <Button onClick={() => setArchived(false)}>Show the class</Button>
            ) : (
              <ButtonLink to={`/import?class=${current.id}`} shape="main">
                Paste a class list
              </ButtonLink>
            )
          }
        >
          {archived
            ? "No child of this class is archived."
            : "No child is in this class yet. Copy the names from a spreadsheet and paste them."}
        </Empty>
      )}
      {shown.length > 0 && (
        <SearchField
          label="Search the children"
          placeholder="A name, or a word of a note"
          value={wanted}
          onChange={setWanted}
          found={found.length}
        />
      )}
      {shown.length > 0 && (
        <Table
          label="Children of the class"
          room="sheet"
          rows={found}
          rowKey={(child) => child.id}
          columns={[
            {
              title: "Child",
              names: true,
              sortBy: (child) => child.name,
              show: (child) => (
                <>
                  <Link
                    to={`/child/${child.id}`}
                    className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
                  >
                    {child.name}
                  </Link>
                  {child.absentOn === school.today && <span className="ml-2 text-sm text-soft">absent today</span>}
                  {child.note && <span className="block text-sm text-soft sm:hidden">{child.note}</span>}
                </>
              ),
            },
            {
              title: "Note",
              className: "max-w-80 truncate text-soft max-sm:hidden",
              show: (child) => <span title={child.note}>{child.note}</span>,
            },
            {
              title: "Last checked",
              className: "whitespace-nowrap",
              sortBy: (child) => child.lastChecked,
              show: (child) =>
                child.lastChecked ? (
                  nearDay(child.lastChecked, school.today)
                ) : (
                  <span className="text-soft">not yet</span>
                ),
            },
            {
              title: "Actions",
              unseen: true,
              className: "no-print text-right whitespace-nowrap",
              show: (child) =>
                archived ? (
                  <Button shape="quiet" onClick={() => bringBack(child)}>
                    Bring back
                  </Button>
                ) : (
                  <>
                    <Button
                      shape="quiet"
                      onClick={() => sayAbsent(child, child.absentOn !== school.today)}
                      aria-pressed={child.absentOn === school.today}
                      aria-label={`${child.name} is absent today`}
                    >
                      Absent
                    </Button>
                    <ButtonLink shape="quiet" to={`/check?child=${child.id}`} aria-label={`Check ${child.name}`}>
                      Check
                    </ButtonLink>
                    <Button shape="quiet" onClick={() => setDialog(child)} aria-label={`Edit ${child.name}`}>
                      Edit
                    </Button>
                  </>
                ),
            },
          ]}
        />
      )}
      {(hidden > 0 || archived) && (
        <p className="mt-3">
          <Button shape="quiet" onClick={() => setArchived(!archived)}>
            <Archive size={16} aria-hidden /> {archived ? "Show the class" : `Show ${hidden} archived`}
          </Button>
        </p>
      )}
      <Suspense>
        {dialog === "edit class" && <ClassDialog school={school} current={current} onClose={() => setDialog(null)} />}
        {dialog !== null && dialog !== "edit class" && (
          <ChildDialog
            school={school}
            classId={current.id}
            child={dialog === "new child" ? undefined : dialog}
            onClose={() => setDialog(null)}
          />
        )}
      </Suspense>
    </Page>
  );
}
