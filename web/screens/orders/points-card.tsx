import { useState } from "react";
import { forgetPoints, joinPoints, type OrderContent, type Point, pointsOf, splitPoint } from "#core/order";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Spellings } from "#web/parts/marks.tsx";
import { Panel } from "#web/parts/page.tsx";

interface PointsWanted {
  readonly order: OrderContent;
  readonly locked: boolean;
  readonly onChange: (order: OrderContent) => void;
}

/** What is taught as one thing in this order, by rules or by a name of its own; named, split and joined here. */
export function PointsCard({ order, locked, onChange }: PointsWanted) {
  const points = pointsOf(order);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [name, setName] = useState("");
  const [all, setAll] = useState(false);
  const shown = all ? points : points.filter(({ gpcs, own }) => gpcs.length > 1 || own);
  const chosen = points.filter(({ id }) => ticked.has(id));
  const tick = (id: string) => {
    const next = new Set(ticked);
    if (!next.delete(id)) next.add(id);
    setTicked(next);
  };
  const join = () => {
    const called =
      name.trim() ||
      chosen
        .map((point) => point.name)
        .join(" and ")
        .slice(0, 60);
    onChange(
      joinPoints(
        order,
        called,
        chosen.flatMap(({ gpcs }) => gpcs),
      ),
    );
    setTicked(new Set());
    setName("");
  };
  return (
    <Panel
      className="mt-4"
      title="Taught as one thing"
      actions={
        <Button shape="quiet" onClick={() => setAll(!all)}>
          {all ? "Only those of several spellings" : `All ${points.length} points`}
        </Button>
      }
    >
      <p className="mb-2 text-soft">
        Groups, sessions and the map speak of these. Each spelling in one keeps its own answers, chance and worth.
      </p>
      <ul className="grid gap-x-6 md:grid-cols-2">
        {shown.map((point) => (
          <Row
            key={point.id}
            {...{ point, order, locked, onChange }}
            ticked={ticked.has(point.id)}
            onTick={() => tick(point.id)}
          />
        ))}
      </ul>
      {!locked && (
        <form
          className="mt-3 flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (chosen.length > 1) join();
          }}
        >
          <div className="w-64">
            <TextField
              label="Join the ticked under the name"
              maxLength={60}
              placeholder={chosen.map((point) => point.name).join(" and ")}
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
          </div>
          <Button type="submit" disabled={chosen.length < 2}>
            Join {chosen.length > 1 ? chosen.length : ""}
          </Button>
        </form>
      )}
    </Panel>
  );
}

interface RowWanted extends PointsWanted {
  readonly point: Point;
  readonly ticked: boolean;
  readonly onTick: () => void;
}

function Row({ point, order, locked, ticked, onTick, onChange }: RowWanted) {
  const [name, setName] = useState<string | null>(null);
  const rename = () => {
    const called = (name ?? "").trim();
    if (called && called !== point.name) onChange(joinPoints(order, called, point.gpcs));
    setName(null);
  };
  return (
    <li className="flex min-h-10 flex-wrap items-center gap-2 border-b border-line py-1">
      {!locked && (
        <input
          type="checkbox"
          className="size-4 accent-leaf"
          aria-label={`Tick ${point.name}`}
          checked={ticked}
          onChange={onTick}
        />
      )}
      {name === null ? (
        <span className="font-semibold">{point.name}</span>
      ) : (
        <form
          className="w-52"
          onSubmit={(event) => {
            event.preventDefault();
            rename();
          }}
        >
          <TextField
            bare
            autoFocus
            label={`Name of ${point.name}`}
            maxLength={60}
            value={name}
            onChange={(event) => setName(event.target.value)}
            onBlur={rename}
          />
        </form>
      )}
      <span className="flex-1">
        <Spellings gpcs={point.gpcs} />
      </span>
      {!locked && (
        <>
          <Button shape="quiet" aria-label={`Rename ${point.name}`} onClick={() => setName(point.name)}>
            Rename
          </Button>
          {point.gpcs.length > 1 && (
            <Button
              shape="quiet"
              aria-label={`Split ${point.name}`}
              onClick={() => onChange(splitPoint(order, point))}
            >
              Split
            </Button>
          )}
          {point.own && (
            <Button
              shape="quiet"
              aria-label={`${point.name} by the rules again`}
              onClick={() => onChange(forgetPoints(order, point.gpcs))}
            >
              By the rules
            </Button>
          )}
        </>
      )}
    </li>
  );
}
