import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { checkRoster } from "#core/roster";
import { csvOf } from "#web/parts/csv.ts";
import { readTable } from "./table.ts";

const cells = (text: string) => readTable(text).rows.map((row) => row.cells);

describe("a pasted or chosen table", () => {
  test.each([
    ["commas", "name,class\nAda,Kiln\n"],
    ["semicolons", "name;class\nAda;Kiln\n"],
    ["tabs", "name\tclass\nAda\tKiln\n"],
    ["Windows line ends", "name,class\r\nAda,Kiln\r\n"],
    ["old line ends", "name,class\rAda,Kiln"],
    ["a byte order mark", "\uFEFFname,class\nAda,Kiln"],
    ["quotes", '"name","class"\n"Ada","Kiln"'],
  ])("is read with %s", (_, text) => {
    expect(cells(text).slice(0, 2)).toEqual([
      ["name", "class"],
      ["Ada", "Kiln"],
    ]);
  });
  test("a separator, a quotation mark and a line end inside quotes belong to the cell", () => {
    expect(cells('name,note\n"Ada, M.","says ""moo""\nloudly"')[1]).toEqual(["Ada, M.", 'says "moo"\nloudly']);
  });
  test("names alone, one a line, are one column", () => {
    expect(cells("Ada M.\nBen T.")).toEqual([["Ada M."], ["Ben T."]]);
  });
  test("a comma in a tab-separated list stays in its cell", () => {
    expect(cells("name\tnote\nAda\tsits left, near the door")[1]).toEqual(["Ada", "sits left, near the door"]);
  });
  test("a quotation mark that is not closed is told with its line", () => {
    expect(readTable('name,class\nAda,Kiln\n"Ben,Kiln\nCy,Kiln').trouble).toMatch(/opens on line 3 is not closed/);
    expect(readTable("name,class\nAda,Kiln").trouble).toBeNull();
  });
  test("a text longer than any list is refused as a whole", () => {
    const read = readTable("x".repeat(4_000_001));
    expect(read.rows).toEqual([]);
    expect(read.trouble).toMatch(/Nothing was read/);
  });
  test("nothing, and only line ends, are no rows that could become children", () => {
    for (const text of ["", "\n", "\r\n\r\n", " ; ; \n"]) {
      expect(
        checkRoster({ rows: readTable(text).rows, classNames: ["Kiln"], fallbackClass: "Kiln", present: [] }),
      ).toEqual([]);
    }
  });
});

test("what is exported comes back as the same children, whatever is in a name or a note", () => {
  const text = fc
    .string({ minLength: 1, maxLength: 20, unit: "grapheme" })
    .map((one) => one.replace(/[\u0000-\u001f\u007f\ufffd\s]+/g, " ").trim());
  const child = fc.record({ name: text.filter((name) => name !== "" && name.length <= 60), note: text });
  const children = fc.uniqueArray(child, {
    minLength: 1,
    maxLength: 12,
    selector: ({ name }) => name.normalize("NFC").toLocaleLowerCase("en"),
  });
  fc.assert(
    fc.property(children, (list) => {
      const csv = csvOf([["name", "class", "note"], ...list.map(({ name, note }) => [name, "Kiln", note])]);
      const rows = checkRoster({
        rows: readTable(csv).rows,
        classNames: ["Kiln"],
        fallbackClass: undefined,
        present: [],
      });
      expect(rows.flatMap((row) => row.problems)).toEqual([]);
      expect(rows.map(({ name, note }) => ({ name, note }))).toEqual(
        list.map(({ name, note }) => ({ name: name.normalize("NFC"), note })),
      );
    }),
  );
});
