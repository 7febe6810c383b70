import { describe, expect, test } from "vitest";
import { csvOf } from "#web/parts/csv.ts";
import { type GridRow, type Ringed, readGrid, writeGrid } from "./grid-csv.ts";

const sheet = {
  "p i n": [
    { text: "pen", from: "i=i", to: "e=e" },
    { text: "pin" },
    { text: "bin", from: "p=p", to: "b=b" },
    { text: "pit", from: "n=n", to: "t=t" },
  ],
  "c a t": [
    { text: "cat" },
    { text: "cut", from: "a=a", to: "u=u" },
    { text: "cap", from: "t=t", to: "p=p" },
    { text: "bat", from: "c=k", to: "b=b" },
  ],
};
const items = Object.keys(sheet);
const rows: GridRow[] = [
  { childId: "a", name: "Ada M.", items, setup: { sheet, version: "A" } },
  { childId: "b", name: "Ben T.", items, setup: { sheet, version: "B" } },
];
const show = (item: string) => item.replaceAll(" ", "");

describe("a grid as CSV", () => {
  test("comes back as it went out, each child by its own sheet", () => {
    const ringed: Record<string, Ringed> = { "a p i n": 2, "a c a t": "blank", "b p i n": 1, "b c a t": "doubled" };
    const text = csvOf(writeGrid(rows, show, (child, item) => ringed[`${child} ${item}`])).slice(1);
    expect(text.split("\r\n")[0]).toBe("child,pin,cat");
    expect(text).toContain("Ada M.,pin,blank");
    const back = readGrid(text, rows, show);
    expect(back.problems).toEqual([]);
    expect(Object.fromEntries(back.cells.map((cell) => [`${cell.childId} ${cell.item}`, cell.ringed]))).toEqual(
      ringed,
    );
  });
  test("takes numbers, words in any case, columns in any order, and leaves empty places alone", () => {
    const back = readGrid("child,CAT,pin\nben t.,,PEN\nAda M.,3,x\n", rows, show);
    expect(back.problems).toEqual([]);
    expect(back.cells).toEqual([
      { childId: "b", item: "p i n", ringed: expect.any(Number) },
      { childId: "a", item: "c a t", ringed: 3 },
      { childId: "a", item: "p i n", ringed: "doubled" },
    ]);
  });
  test("tells what it cannot take, line by line, and takes the rest", () => {
    const back = readGrid("child,pin,dog\nAda M.,pan,1\nCy F.,pin,1\nBen T.,2,9\n", rows, show);
    expect(back.problems).toEqual([
      "Column “dog” is no item of this sheet.",
      "Line 2: “pan” is no choice for pin.",
      "Line 3: “Cy F.” is not in this check.",
    ]);
    expect(back.cells).toEqual([{ childId: "b", item: "p i n", ringed: 2 }]);
  });
  test("an empty file has nothing", () => {
    expect(readGrid("", rows, show)).toEqual({ cells: [], problems: [] });
  });
});
