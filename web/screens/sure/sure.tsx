import { type Foresight, getForesight } from "#contract";
import type { WayToForetell } from "#core/mastery";
import { plural } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Chart } from "#web/parts/chart.tsx";
import { Empty, Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { type Column, Table } from "#web/parts/table.tsx";
import { OwnNumbers } from "./own-numbers.tsx";

const ways: Readonly<Record<WayToForetell, { readonly name: string; readonly says: string }>> = {
  model: { name: "The model", says: "What this tool goes by: every answer counts, and what was learned fades." },
  days: { name: "The rule of days", says: "Right at once on two days is secure, missed is a gap, eight weeks fade." },
  last: { name: "Same as last time", says: "What was right will be right again." },
  share: {
    name: "The child's share right",
    says: "Each child has so many in a hundred right, whatever the spelling.",
  },
};
type Way = Foresight["ways"][number];

/** Fewer answers than this say little about how well they were foretold. */
const ENOUGH = 300;

/** How well the tool foretells this school's answers: each is foretold from those before it, then counted. */
export function Screen() {
  const { data, error } = useAsk(getForesight, {});
  const lead = useIsAtLeast("lead");
  return (
    <Page
      place="How sure is the tool"
      title="How sure is the tool"
      about="Each card is foretold from the answers before it, and then it is seen what came."
      actions={<ButtonLink to="/gaps">Gaps</ButtonLink>}
    >
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting rows={8} />}
      {data && data.answers === 0 && (
        <Empty
          action={
            <ButtonLink to="/check" shape="main">
              Check a child
            </ButtonLink>
          }
        >
          Nothing was asked yet, so nothing could be foretold.
        </Empty>
      )}
      {data && data.answers > 0 && <Figures data={data} />}
      {data && data.answers > 0 && lead && (
        <div className="mt-4">
          <OwnNumbers own={data.ownModel} answers={data.answers} />
        </div>
      )}
    </Page>
  );
}

function Figures({ data }: { data: Foresight }) {
  const model = data.ways.find(({ name }) => name === "model");
  const others = data.ways.filter(({ name }) => name !== "model");
  const isLessSurprised = model && others.every(({ logLoss }) => model.logLoss <= logLoss);
  const isNearer = model && others.every(({ brier }) => model.brier <= brier);
  const percent = (share: number) => Math.round(share * 100);
  const columns: readonly Column<Way>[] = [
    { title: "Way of judging", names: true, show: ({ name }) => <WayName name={name} /> },
    { title: "Surprise", figures: true, show: ({ logLoss }) => logLoss.toFixed(3) },
    { title: "Error squared", figures: true, show: ({ brier }) => brier.toFixed(3) },
  ];
  return (
    <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-2">
      <Panel title={`${plural(data.answers, "card")} of ${plural(data.children, "child", "children")}`}>
        <p className="mb-3">
          {isLessSurprised && isNearer
            ? "In your school the model foretells the next card better than each of the simpler ways."
            : isLessSurprised
              ? "In your school the model is surprised least; by its error squared a simpler way is as good."
              : "In your school a simpler way foretells the next card as well as the model, so far."}
          {data.answers < ENOUGH && " There are few answers yet: this may change."}
        </p>
        <Table label="Ways of judging" rows={data.ways} columns={columns} rowKey={({ name }) => name} />
        <p className="mt-3 text-sm text-soft">
          Less is better. Surprise is the mean log loss: 0.693 is what tossing a coin gives. The error is how far what
          was said lies from what came, squared.
        </p>
      </Panel>
      <Panel title="When it says 80%, how often is it right?">
        <Chart
          label="What was said, and how often it came right, in bands"
          places={data.bands.map(({ said }) => `${percent(said)}%`)}
          series={[
            { name: "came right", values: data.bands.map(({ right }) => percent(right)), axis: "right", as: "line" },
            {
              name: "if it were exact",
              values: data.bands.map(({ said }) => percent(said)),
              axis: "right",
              as: "dots",
            },
          ]}
          notes={data.bands.map(({ count }) => plural(count, "card"))}
        />
        <ul className="mt-3 grid grid-cols-1 gap-x-6 text-sm sm:grid-cols-2">
          {data.bands.map(({ said, right, count }) => (
            <li key={said} className="flex justify-between tabular-nums">
              <span>said {percent(said)}%</span>
              <span>
                right {percent(right)}% <span className="text-soft">of {count}</span>
              </span>
            </li>
          ))}
        </ul>
      </Panel>
      <Panel title="What it cannot know">
        <ul className="list-disc pl-5">
          <li>A chance is no diagnosis. It says what is likely to come on a card today, not why.</li>
          <li>What ships was fitted to simulated classes, as your school has not told it anything yet.</li>
          <li>
            A card read in bad light, a noisy corridor or a bad morning looks like a gap to it. One slip never is one.
          </li>
          <li>No child's answer changes what is said of another child.</li>
        </ul>
      </Panel>
    </div>
  );
}

function WayName({ name }: { name: WayToForetell }) {
  return (
    <>
      <span className="font-semibold">{ways[name].name}</span>
      <span className="block text-sm text-soft">{ways[name].says}</span>
    </>
  );
}
