import { fromMarkdown } from "mdast-util-from-markdown";

type Block = ReturnType<typeof fromMarkdown>["children"][number];
interface Inline {
  readonly type: string;
  readonly value?: string;
  readonly alt?: string | null;
  readonly children?: readonly Inline[];
}

/**
 * A text may have 20,000 characters. What is much longer is not read as Markdown: a parser takes seconds over a few
 * hundred kilobytes of brackets, and the text is refused for its length in any case.
 */
const MOST_PARSED = 24_000;
/** Signs of Markdown in a text; more of them are no text, and cost a parser their square. */
const MOST_SIGNS = 1_500;

export interface Plain {
  /** Of a heading that opens the text; empty without one. */
  readonly title: string;
  readonly paragraphs: readonly string[];
}

/**
 * The words of a text that was written as Markdown or as it is: a heading at the top, then paragraphs, whose lines stay
 * lines. Signs of emphasis, links, lists and quotes fall away; other markup is text like any other.
 */
export function plainText(source: string): Plain {
  if (source.length > MOST_PARSED || (source.match(/[*_[\]()<>`!]/g)?.length ?? 0) > MOST_SIGNS)
    return { title: "", paragraphs: source.split(/\n{2,}/).filter(Boolean) };
  const [first, ...rest] = fromMarkdown(source).children;
  const isTitle = first?.type === "heading";
  const blocks = first === undefined || isTitle ? rest : [first, ...rest];
  return {
    title: isTitle ? tidy(inline(first as Inline)).replaceAll("\n", " ") : "",
    paragraphs: joined(blocks, source).map(tidy).filter(Boolean),
  };
}

/** Blocks that follow one another without an empty line between are lines of one paragraph, as they were typed. */
function joined(blocks: readonly Block[], source: string): readonly string[] {
  const found: string[] = [];
  let end = Number.NEGATIVE_INFINITY;
  for (const block of blocks) {
    const [first = "", ...rest] = paragraphsOf(block, source);
    const begins = block.position?.start.line ?? 0;
    if (begins === end + 1 && found.length > 0) found[found.length - 1] += `\n${first}`;
    else found.push(first);
    found.push(...rest);
    end = block.position?.end.line ?? begins;
  }
  return found;
}

function paragraphsOf(block: Block, source: string): readonly string[] {
  switch (block.type) {
    case "thematicBreak":
      return [];
    case "blockquote":
      return joined(block.children, source);
    case "list": {
      const items = block.children.map((item) => joined(item.children, source).join("\n"));
      return [items.join("\n")];
    }
    case "paragraph":
    case "heading":
      return [inline(block as Inline)];
    default: {
      const { position } = block;
      return [source.slice(position?.start.offset ?? 0, position?.end.offset ?? 0)];
    }
  }
}

function inline(node: Inline): string {
  if (node.type === "break") return "\n";
  if (node.type === "image" || node.type === "imageReference") return node.alt ?? "";
  return node.value ?? (node.children ?? []).map(inline).join("");
}

/** Lines trimmed, each with single spaces. */
function tidy(paragraph: string): string {
  return paragraph
    .split("\n")
    .map((line) => line.replace(/\s+/g, " ").trim())
    .filter(Boolean)
    .join("\n");
}
