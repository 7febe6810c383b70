import { Tabs } from "radix-ui";
import { useSearchParams } from "react-router";
import { useLexicon } from "#web/app/lexicon.ts";
import { Choice } from "#web/parts/field.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { ChainTool } from "./chain-tool.tsx";
import { ChoicesTool } from "./choices-tool.tsx";
import { FindTool } from "./find-tool.tsx";
import { Look } from "./look.tsx";
import { MadeUpTool } from "./made-up-tool.tsx";
import { OwnSplits } from "./own-splits.tsx";
import { type ForOption, useFor, useForOptions } from "./reader.ts";
import { SentencesTool } from "./sentences-tool.tsx";
import { SortTool } from "./sort-tool.tsx";

const tools = {
  look: { name: "Look", Tool: Look },
  find: { name: "Find words", Tool: FindTool },
  chain: { name: "Chain", Tool: ChainTool },
  sort: { name: "Sort and pairs", Tool: SortTool },
  made: { name: "Made-up words", Tool: MadeUpTool },
  choices: { name: "Four choices", Tool: ChoicesTool },
  sentences: { name: "Sentences", Tool: SentencesTool },
  own: { name: "Our splits", Tool: OwnSplits },
} as const;
type ToolKey = keyof typeof tools;
const keys = Object.keys(tools) as ToolKey[];

/** Any word or text in its sounds and spellings, and lists of words made for these children. */
export function Screen() {
  const [search, setSearch] = useSearchParams();
  const asked = search.get("tool") ?? "";
  const tool: ToolKey = keys.includes(asked as ToolKey) ? (asked as ToolKey) : "look";
  const forKey = search.get("for") ?? "all";
  const { ground, error } = useLexicon();
  const { reader, error: readerError } = useFor(forKey);
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
      actions={<ForChoice value={forKey} onChange={(key) => put({ for: key })} />}
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
              ) : ground && reader ? (
                <Tool key={forKey} ground={ground} reader={reader} />
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

function ForChoice({ value, onChange }: { value: string; onChange: (key: string) => void }) {
  const { classes, groups, children } = useForOptions();
  return (
    <div className="w-64">
      <Choice label="For" value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="all">everyone: all spellings</option>
        <Group label="Classes, by what is taught" options={classes} />
        <Group label="Groups, by what all can read" options={groups} />
        <Group label="Children" options={children} />
      </Choice>
    </div>
  );
}

function Group({ label, options }: { label: string; options: readonly ForOption[] }) {
  if (options.length === 0) return null;
  return (
    <optgroup label={label}>
      {options.map((option) => (
        <option key={option.key} value={option.key}>
          {option.name}
        </option>
      ))}
    </optgroup>
  );
}
