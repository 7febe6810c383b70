import { spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";

// A copy of the code into which a new kind of check is put as docs/architecture.md says: "colours", in which the child
// names the colour of a patch. It has a choice of its own in a plan, keeps something of its own, and has its own piles.
let copy = "";
const root = join(import.meta.dirname, "..");

const inCore = `
import { kindNames } from "#core/ledger";
import { type Kind, nothingTold } from "./kind.ts";
import { saidPad } from "./pads.ts";

interface ColoursSection { readonly bright: boolean }
interface ColoursSetup { readonly light: "day" | "lamp" }

const patches = ["red", "blue", "green", "pale pink", "pale grey"];

export const colours: Kind<"colours", ColoursSection, ColoursSetup> = {
  id: "colours",
  name: kindNames.colours,
  about: "The child sees a patch and says its colour.",
  begins: { scope: "all", most: 5, bright: false },
  keeps: (drawn) => ({ light: drawn?.section.bright ? "day" : "lamp" }),
  picks: null,
  piles: { title: "By brightness", of: (item) => (item.startsWith("pale") ? "Pale" : "Bright") },
  way: "cards",
  seconds: 3,
  order: "shuffled",
  fits: (item) => patches.includes(item),
  draw: ({ section }) => ({ items: patches.filter((one) => !section.bright || !one.startsWith("pale")).slice(0, section.most) }),
  face: (item) => ({ show: "text", text: item, size: "word" }),
  prompt: (item) => ({ say: "", expects: item }),
  pad: () => saidPad,
  likely: () => [],
  tags: () => [],
  show: (item) => item,
  showHeard: (heard) => heard,
  tell: (answer, { setup }) => ({ ...nothingTold, says: [answer.item + " by " + setup.light] }),
};
`;

const onTheWeb = `
import { Tick } from "../toggles.tsx";
import type { KindOnScreen } from "./on-screen.ts";

export const colours: KindOnScreen<"colours"> = {
  anyTaught: true,
  inWords: ({ bright }) => [bright ? "bright ones" : "all patches"],
  Choices: ({ section, set }) => (
    <Tick on={section.bright} onSet={(bright) => set({ bright })}>
      Only bright ones
    </Tick>
  ),
};
`;

const asked = `
import { section as partOfPlan } from "#contract";
import { planCheck, plainSetup, sectionOf, summarise } from "#core/checks";
import { admit, inCheck, kindIds, standing } from "#core/ledger";
import { readLexicon } from "#core/words";
import { readFileSync } from "node:fs";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const part = partOfPlan.parse(JSON.parse(JSON.stringify(sectionOf("colours", { bright: true }))));
const nothing = { taught: [], recent: [], exceptionWords: [], recentExceptionWords: [], madeUp: [], sentences: [], compounds: [] };
const settings = { answerForm: "sound", exceptionWay: "wholes", madeUp: true, slowAfter: 3, letterShapes: "written", deviceVoice: false } as const;
const check = planCheck({ ...nothing, lexicon, settings, section: part, secure: new Set(), last: new Map(), seed: 1 });
const at = "2026-11-20T09:00:00.000Z";
const marks = ["right", "none", "right"].map((outcome, i) => ({
  ...inCheck("colours", "k"), id: "m" + i, childId: "c", markedAt: at, day: "2026-11-20", markedBy: "A", ms: 100, pass: 1, tags: [], item: check.items[i], outcome,
}));
const stored = {
  children: new Set(["c"]), checks: new Map([["k", { childId: "c", kind: "colours", items: new Set(check.items), startedAt: at }]]),
  readings: new Map(), sessions: new Map(), entries: new Map(), takenBack: new Set(), ended: new Set(),
};
const fates = admit(marks as never, stored as never, { isFuture: () => false, dayOf: () => "2026-11-20" });
const result = summarise({ kind: "colours", before: new Map(), answers: standing(marks as never), lexicon, setup: check.setup, settings } as never);
console.log(JSON.stringify({ last: kindIds.at(-1), part, check, before: plainSetup("colours"), fates: fates.map((one) => one.fate), piles: result.shapes, says: result.missed.map((one) => one.told.says) }));
`;

/** Puts lines after the one that ends the list of kinds. */
function putIn(file: string, ...lines: (readonly [string, string])[]): void {
  const path = join(copy, file);
  let text = readFileSync(path, "utf8");
  for (const [before, line] of lines) {
    expect(text.split(before), `${file} has one place for a new kind`).toHaveLength(2);
    text = text.replace(before, line + before);
  }
  writeFileSync(path, text);
}

beforeAll(() => {
  copy = mkdtempSync(join(tmpdir(), "keen-kind-"));
  for (const part of ["core", "contract", "server", "web", "package.json", "tsconfig.json"])
    cpSync(join(root, part), join(copy, part), {
      recursive: true,
      filter: (path) => !/\.(test|bench)\.tsx?$/.test(path),
    });
  for (const part of ["node_modules", "data"]) symlinkSync(join(root, part), join(copy, part));
  writeFileSync(join(copy, "core/checks/kinds/colours.ts"), inCore);
  writeFileSync(join(copy, "web/screens/check/kinds/colours.tsx"), onTheWeb);
  writeFileSync(join(copy, "asked.ts"), asked);
  putIn("core/ledger/kinds.ts", [
    "\n} as const satisfies",
    `\n  colours: { name: "Colours", way: "seen", timed: true },`,
  ]);
  putIn(
    "core/checks/kinds/index.ts",
    [" };\n\ntype Each", ", colours"],
    [`import type { AskOf`, `import { colours } from "./colours.ts";\n`],
  );
  putIn("contract/checks.ts", [
    "] as const;\n\n/** Schemas of some kinds",
    `  z.object({ kind: z.literal("colours"), ...ofAll, bright: z.boolean() }),\n`,
  ]);
  putIn("contract/checks.ts", [
    "] as const;\nconst setup",
    `  z.object({ kind: z.literal("colours"), ...ofSetup, light: z.enum(["day", "lamp"]) }),\n`,
  ]);
  putIn(
    "web/screens/check/kinds/index.ts",
    ["\n};\n\n/** What a kind", "\n  colours,"],
    [`import { dictation }`, `import { colours } from "./colours.tsx";\n`],
  );
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));

// The compiler takes twenty seconds for all of it: npm run test:long.
test.runIf(process.env.KEEN_LONG)(
  "a new kind of check is a file in core, one on the web, and a line for each; all of it compiles",
  () => {
    const told = spawnSync(process.execPath, [join(root, "node_modules/typescript/bin/tsc"), "--noEmit", "-p", "."], {
      cwd: copy,
      encoding: "utf8",
    });
    expect(told.stdout).toBe("");
    expect(told.status).toBe(0);
  },
);

test("it is planned, kept, marked, and its result read, as every other kind", () => {
  const told = spawnSync(process.execPath, ["--import", "tsx", "asked.ts"], { cwd: copy, encoding: "utf8" });
  expect(told.stderr).toBe("");
  const said = JSON.parse(told.stdout);
  expect(said).toMatchObject({
    last: "colours",
    part: { kind: "colours", scope: "all", most: 5, bright: true },
    check: {
      kind: "colours",
      items: ["red", "blue", "green"],
      setup: { kind: "colours", light: "day", form: "deck" },
    },
    before: { kind: "colours", light: "lamp" },
    fates: ["kept", "kept", "kept"],
    piles: [{ name: "Bright", asked: 3, atOnce: 2, missed: 1 }],
    says: [["blue by day"]],
  });
});
