import { Download, Printer } from "lucide-react";
import { startTransition, useDeferredValue, useMemo, useOptimistic, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { getGaps, getSchool, mapsOf } from "#contract";
import type { State } from "#core/mastery";
import { plural } from "#core/saying";
import { useAsk, useAskSliced } from "#web/device/api.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { downloadCsv } from "#web/parts/download-csv.ts";
import { Choice } from "#web/parts/field.tsx";
import { Legend } from "#web/parts/marks.tsx";
import { Empty, Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { EvidenceSheet } from "./evidence.tsx";
import { type CellPlace, Grid } from "./grid.tsx";
import { PrintMap } from "./print.tsx";
import { type GapView, type SortBy, viewOf } from "./view.ts";

/** Who knows which spelling: the map of a class, or of all. */
export function Screen() {
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const school = useAsk(getSchool, {});
  const classes = school.data?.classes.filter((one) => !one.archived) ?? [];
  const classId = search.get("class") ?? "";
  const of = mapsOf.find((one) => one === search.get("of")) ?? "reading";
  const map = useAskSliced(getGaps, {
    query: { classId: classId || undefined, of: of === "reading" ? undefined : of },
  });
  const filter = useDeferredValue({
    step: search.get("step") ?? "",
    state: (search.get("state") ?? "") as State | "",
    sort: (search.get("sort") ?? "name") as SortBy,
    onlyTaught: search.get("columns") !== "all",
    hideNames: search.get("names") === "hidden",
  });
  const [open, setOpen] = useState<CellPlace | null>(null);
  const view = useMemo(() => (map.data ? viewOf(map.data, filter) : null), [map.data, filter]);
  const steps = useMemo(
    () => [...new Map(map.data?.columns.map((column) => [column.stepId, column])).values()],
    [map.data],
  );
  // What was chosen shows at once, also where the address takes a moment to follow.
  const [chosen, choose] = useOptimistic(search.toString());
  const shown = new URLSearchParams(chosen);
  const set = (key: string, value: string) =>
    startTransition(async () => {
      const next = new URLSearchParams(chosen);
      if (value) next.set(key, value);
      else next.delete(key);
      choose(next.toString());
      await navigate({ search: next.toString() }, { replace: true });
    });
  const name = classes.find((one) => one.id === classId)?.name ?? "All classes";

  return (
    <Page
      place="Gaps"
      title="Gaps"
      about={
        view
          ? `${name}: ${plural(view.rows.length, "child", "children")}, ${plural(view.columns.length, of === "blending" ? "shape of words" : "spelling", of === "blending" ? "shapes of words" : "spellings")}`
          : "Who knows which spelling"
      }
      actions={
        <>
          <Button onClick={() => view && exportCsv(name, view)} disabled={!view || view.rows.length === 0}>
            <Download size={16} aria-hidden /> CSV
          </Button>
          <Button onClick={() => window.print()} disabled={!view || view.rows.length === 0}>
            <Printer size={16} aria-hidden /> Print
          </Button>
          <ButtonLink to={`/groups/new${classId ? `?class=${classId}` : ""}`} shape="main">
            Make groups
          </ButtonLink>
        </>
      }
    >
      <div className="no-print mb-3 flex flex-wrap items-end gap-3">
        <div className="w-40">
          <Choice
            label="Class"
            value={shown.get("class") ?? ""}
            onChange={(event) => set("class", event.target.value)}
          >
            <option value="">All classes</option>
            {classes.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Choice>
        </div>
        <div className="w-36">
          <Choice
            label="Map of"
            value={shown.get("of") ?? "reading"}
            onChange={(event) => set("of", event.target.value === "reading" ? "" : event.target.value)}
          >
            {mapsOf.map((one) => (
              <option key={one} value={one}>
                {one}
              </option>
            ))}
          </Choice>
        </div>
        <div className="w-56">
          <Choice
            label="Step or point"
            value={shown.get("step") ?? ""}
            onChange={(event) => set("step", event.target.value)}
          >
            <option value="">All steps</option>
            <optgroup label="Steps">
              {steps.map((one) => (
                <option key={one.stepId} value={one.stepId}>
                  {one.step > 0 ? `${one.step}. ` : ""}
                  {one.title}
                </option>
              ))}
            </optgroup>
            <optgroup label="Taught as one thing">
              {map.data?.points
                .filter(({ gpcs }) => gpcs.length > 1)
                .map(({ name: called, gpcs }) => (
                  <option key={gpcs[0]} value={`point:${gpcs[0]}`}>
                    {called}
                  </option>
                ))}
            </optgroup>
          </Choice>
        </div>
        <div className="w-36">
          <Choice
            label="State"
            value={shown.get("state") ?? ""}
            onChange={(event) => set("state", event.target.value)}
          >
            <option value="">All states</option>
            {(["gap", "unsteady", "not sure yet", "secure", "not checked"] as const).map((state) => (
              <option key={state} value={state}>
                {state}
              </option>
            ))}
          </Choice>
        </div>
        <div className="w-48">
          <Choice
            label="Children in order of"
            value={shown.get("sort") ?? "name"}
            onChange={(event) => set("sort", event.target.value === "name" ? "" : event.target.value)}
          >
            <option value="name">name</option>
            <option value="alike">likeness</option>
            <option value="gaps">gaps, most first</option>
            <option value="doubt">doubts, most first</option>
          </Choice>
        </div>
        <label className="flex items-center gap-2 pb-2">
          <input
            type="checkbox"
            className="size-4 accent-leaf"
            checked={shown.get("columns") === "all"}
            onChange={(event) => set("columns", event.target.checked ? "all" : "")}
          />{" "}
          untaught too
        </label>
        <label className="flex items-center gap-2 pb-2">
          <input
            type="checkbox"
            className="size-4 accent-leaf"
            checked={shown.get("names") === "hidden"}
            onChange={(event) => set("names", event.target.checked ? "hidden" : "")}
          />{" "}
          hide names
        </label>
      </div>
      {map.error && !map.data && <Trouble error={map.error} />}
      {!view && !map.error && <Waiting rows={14} />}
      {view && view.rows.length === 0 && (
        <Empty
          action={
            map.data?.rows.length ? (
              <Button onClick={() => setSearch({}, { replace: true })}>Show everything</Button>
            ) : (
              <ButtonLink to="/class" shape="main">
                Go to Class
              </ButtonLink>
            )
          }
        >
          {map.data?.rows.length
            ? "No child has this state here."
            : "The map shows who knows which spelling. It begins with children in a class and a first check."}
        </Empty>
      )}
      {view && view.rows.length > 0 && view.columns.length === 0 && (
        <Empty
          action={
            <ButtonLink to={classId ? `/class/${classId}` : "/class"} shape="main">
              Mark what is taught
            </ButtonLink>
          }
        >
          Nothing is marked as taught yet, and nothing was checked. Say in Class how far it has been taught.
        </Empty>
      )}
      {view && view.rows.length > 0 && view.columns.length > 0 && (
        <>
          <div className="no-print">
            <Grid view={view} childId={search.get("child")} only={filter.state} onOpen={setOpen} />
          </div>
          <div className="no-print mt-2 flex flex-wrap items-center justify-between gap-2">
            <Legend />
            <p className="text-sm text-soft">Open a mark to see every answer behind it.</p>
          </div>
          <PrintMap view={view} title={`Gaps, ${name}`} day={map.data?.today ?? ""} />
        </>
      )}
      {open && view && (
        <EvidenceSheet
          row={view.rows[open.row]}
          gpc={view.columns[open.column]?.gpc}
          of={of}
          onClose={() => setOpen(null)}
        />
      )}
    </Page>
  );
}

function exportCsv(name: string, view: GapView): void {
  const head = ["child", "gaps", ...view.columns.map((column) => column.gpc)];
  const rows = view.rows.map((row) => [row.name, String(row.gaps), ...row.states]);
  const sums = ["children with a gap", "", ...view.sums.map((sum) => String(sum.gap))];
  downloadCsv(`gaps-${name}.csv`, [head, ...rows, sums]);
}
