import { Tabs } from "radix-ui";
import { lazy, Suspense, useMemo } from "react";
import { useSearchParams } from "react-router";
import { knownBys, withinAge } from "#core/words";
import { useLexicon } from "#web/device/lexicon.ts";
import { usePictures } from "#web/device/own-pictures.ts";
import { useFor, useForOptions } from "#web/device/readers.ts";
import { Choice } from "#web/parts/field.tsx";
import { ForChoice } from "#web/parts/for-choice.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { Look } from "./look.tsx";

/** Each comes when it is first opened, except the one that the place begins with. */
const tools = {
  look: { name: "Look", Tool: Look },
  find: {
    name: "Find words",
    Tool: lazy(() => import("./find-tool.tsx").then(({ FindTool }) => ({ default: FindTool }))),
  },
  chain: {
    name: "Chain",
    Tool: lazy(() => import("./chain-tool.tsx").then(({ ChainTool }) => ({ default: ChainTool }))),
  },
  sort: {
    name: "Sort and pairs",
    Tool: lazy(() => import("./sort-tool.tsx").then(({ SortTool }) => ({ default: SortTool }))),
  },
  made: {
    name: "Made-up words",
    Tool: lazy(() => import("./made-up-tool.tsx").then(({ MadeUpTool }) => ({ default: MadeUpTool }))),
  },
  choices: {
    name: "Four choices",
    Tool: lazy(() => import("./choices-tool.tsx").then(({ ChoicesTool }) => ({ default: ChoicesTool }))),
  },
  sentences: {
    name: "Sentences",
    Tool: lazy(() => import("./sentences-tool.tsx").then(({ SentencesTool }) => ({ default: SentencesTool }))),
  },
  own: {
    name: "Our words",
    Tool: lazy(() => import("./own-splits.tsx").then(({ OwnSplits }) => ({ default: OwnSplits }))),
  },
} as const;
type ToolKey = keyof typeof tools;
const keys = Object.keys(tools) as ToolKey[];

/** Any word or text in its sounds and spellings, and lists of words made for these children. */
export function Screen() {
  const options = useForOptions();
  const [search, setSearch] = useSearchParams();
  const asked = search.get("tool") ?? "";
  const tool: ToolKey = keys.includes(asked as ToolKey) ? (asked as ToolKey) : "look";
  const forKey = search.get("for") ?? "all";
  const { ground, error } = useLexicon();
  const { reader, error: readerError } = useFor(forKey);
  // What the youngest of the readers knows, unless another age is asked for.
  const age = knownBys.find((one) => String(one) === search.get("age")) ?? reader?.age ?? 12;
  const { pictures } = usePictures(ground?.pictures);
  const offered = useMemo(
    () => ground && { ...ground, pictures, lexicon: withinAge(ground.lexicon, age) },
    [ground, age, pictures],
  );
  const trouble = error ?? readerError;
  const put = (change: Record<string, string>) =>
    setSearch(
      (before) => {
        for (const [name, value] of Object.entries(change)) before.set(name, value);
        return before;
      },
      { replace: true },
    );
  return (
    <Page
      place="Words"
      title="Words"
      about="Any word in its sounds and spellings, and word lists that these children can read."
      actions={
        <>
          <div className="w-44">
            <Choice
              label="Words that children know"
              value={age}
              onChange={(event) => put({ age: event.target.value })}
            >
              {knownBys.map((one) => (
                <option key={one} value={one}>
                  {one === 12 ? "at any age" : `by the age of ${one}`}
                </option>
              ))}
            </Choice>
          </div>
          <ForChoice options={options} value={forKey} onChange={(key) => put({ for: key, age: "" })} />
        </>
      }
    >
      <Tabs.Root value={tool} onValueChange={(key) => put({ tool: key })}>
        <Tabs.List
          aria-label="What to do with words"
          className="no-print mb-4 flex flex-wrap gap-x-1 border-b border-line"
        >
          {keys.map((key) => (
            <Tabs.Trigger
              key={key}
              value={key}
              className="-mb-px min-h-9 cursor-pointer border-b-2 border-transparent px-3 py-1.5 text-soft hover:text-ink data-[state=active]:border-leaf data-[state=active]:font-semibold data-[state=active]:text-ink"
            >
              {tools[key].name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {keys.map((key) => {
          const { Tool } = tools[key];
          return (
            <Tabs.Content key={key} value={key} tabIndex={-1}>
              {trouble ? (
                <Trouble error={trouble} />
              ) : offered && reader ? (
                <Suspense fallback={<Waiting rows={8} />}>
                  <Tool key={`${forKey} ${age}`} ground={offered} reader={reader} age={age} />
                </Suspense>
              ) : (
                <Waiting rows={8} />
              )}
            </Tabs.Content>
          );
        })}
      </Tabs.Root>
    </Page>
  );
}
