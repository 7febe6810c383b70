// npm run bench -- schools [share]: what the pages of one school cost on a PostgreSQL server, alone on it, among two
// hundred schools, and with a hundred times its answers. `share` (0.01 to 1) makes the crowd smaller; the table of
// docs/scale.md is of 1: 199 other schools, one of them of 3,000 children with 2,000 answers each. Everything is made
// here, from the demo school, in a server of its own that is removed.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { fillDemo } from "#demo";
import { freePort, type RunningServer, startServer } from "../e2e/server.ts";
import { onServer, startTestServer } from "../server/store/testing-server.ts";

const share = Number(process.argv[2] ?? 1);
if (!(share >= 0.01 && share <= 1)) {
  console.error("npm run bench -- schools [share, 0.01 to 1]");
  process.exit(1);
}
const OTHERS = Math.round(199 * share);
const BIG = { children: Math.round(3000 * share), answers: 2000 };
const RUNS = 60;
/** Starts of the application that a cold figure is the median of. */
const STARTS = 7;
const MOST_QUERIES = 10;

const folder = mkdtempSync(join(tmpdir(), "keen-schools-"));
/** Plans of what the application asks, as the server logs them; only those of the measured run among all are kept. */
const plans = new Map<string, { count: number; ms: number; plan: string }>();
let [listening, piece] = [false, ""];
const explained = /duration: ([\d.]+) ms {2}plan:\s*Query Text: ([\s\S]*)/;
function hearPlans(said: string): void {
  piece += said;
  const entries = piece.split(/^(?=\d{4}-\d\d-\d\d [\d:.]+ \S+ \[\d+\] LOG:)/m);
  piece = entries.pop() ?? "";
  if (!listening) return;
  for (const entry of entries) {
    const [, ms = "0", rest = ""] = explained.exec(entry) ?? [];
    const lines = rest.split("\n").map((line) => line.replace(/^\t/, ""));
    const at = lines.findIndex((line) => /\(cost=/.test(line));
    if (at < 1) continue;
    const query = lines
      .slice(0, at)
      .join(" ")
      .replace(/'[0-9a-f-]{36}'/g, "'…'")
      .replace(/\s+/g, " ")
      .trim();
    const key = query.replace(/\$\d+/g, "$").slice(0, 300);
    const known = plans.get(key) ?? { count: 0, ms: 0, plan: lines.slice(at).join("\n") };
    plans.set(key, { ...known, count: known.count + 1, ms: known.ms + Number(ms) });
  }
}
const settings = [
  "shared_preload_libraries=auto_explain",
  "auto_explain.log_min_duration=0",
  "auto_explain.log_analyze=off",
];
const database = await startTestServer(await freePort(), {
  flags: settings.flatMap((one) => ["-c", one]),
  says: hearPlans,
});
const url = database.urlOf("keen_schools");
await onServer(url, "create database keen_schools");
const sql = new pg.Client({ connectionString: url });

const port = await freePort();
let app: RunningServer = await startServer(folder, port, { url });
const restart = async () => {
  await app.stop();
  app = await startServer(folder, port, { url });
};
const get = async <T>(path: string): Promise<T> => {
  const response = await fetch(app.base + path);
  if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
  return response.json() as Promise<T>;
};
const median = (values: readonly number[]) => [...values].sort((one, other) => one - other)[values.length >> 1] ?? 0;

/** What a page asks of the server, in the order in which it asks. */
type Pages = Readonly<Record<string, readonly string[]>>;

async function cost(paths: readonly string[]): Promise<number> {
  const began = performance.now();
  for (const path of paths) await get(path);
  return performance.now() - began;
}

interface Costs {
  readonly warm: number;
  readonly cold: number;
}

async function costs(pages: Pages): Promise<Map<string, Costs>> {
  const found = new Map<string, Costs>();
  for (const [name, paths] of Object.entries(pages)) {
    const cold: number[] = [];
    for (let start = 0; start < STARTS; start++) {
      await restart();
      // A page is asked by someone who has the application open: the school itself has been asked for.
      await get("/api/school");
      cold.push(await cost(paths));
    }
    const warm: number[] = [];
    for (let run = 0; run < RUNS; run++) warm.push(await cost(paths));
    found.set(name, { cold: median(cold), warm: median(warm) });
  }
  return found;
}

try {
  await sql.connect();
  await fillDemo(app.base);
  const { classes } = await get<{ classes: { id: string }[] }>("/api/school");
  const children = await get<{ id: string }[]>("/api/children");
  const [session] = await get<{ id: string; groupId: string }[]>("/api/sessions");
  const pages: Pages = {
    Today: ["/api/today"],
    Class: [`/api/children?classId=${classes[0]?.id}`],
    Gaps: ["/api/gaps"],
    Groups: ["/api/groups"],
    Child: [`/api/children/${children[7]?.id}`, `/api/gaps?classId=${classes[0]?.id}`],
    Session: [`/api/sessions/${session?.id}`],
  };
  const { rows: own } = await sql.query("select id from schools");
  const home: string = own[0].id;
  const count = async (of?: string) =>
    Number((await sql.query(`select count(*) from answers${of ? ` where school_id = '${of}'` : ""}`)).rows[0].count);
  console.log(`The demo school has ${children.length} children and ${await count()} entries in its ledger.`);
  // What a school has looked at is stored once; that a first look replays is not what is measured here.
  await get("/api/gaps");
  const alone = await costs(pages);

  await sql.query("set session_replication_role = replica");
  const { rows: columns } = await sql.query(
    "select table_name as name, string_agg(quote_ident(column_name), ', ' order by ordinal_position) as columns from information_schema.columns where table_schema = 'public' and column_name <> 'school_id' group by 1",
  );
  const columnsOf = new Map(columns.map((row: { name: string; columns: string }) => [row.name, row.columns]));
  await sql.query(
    `insert into schools (id, slug, name) select gen_random_uuid(), 'other-' || n, 'Other ' || n from generate_series(1, ${OTHERS}) n`,
  );
  // Rules between tables are off for the while, so that any order will do.
  for (const table of columnsOf.keys()) {
    if (["schools", "doors", "erased", "standings"].includes(table)) continue;
    const sparse = table === "answers" ? "and t.number % 10 = 1" : "";
    await sql.query(
      `insert into "${table}" (school_id, ${columnsOf.get(table)}) select s.id, ${(columnsOf.get(table) ?? "").replace(/(^|, )/g, "$1t.")} from "${table}" t, schools s where t.school_id = '${home}' and s.slug like 'other-%' ${sparse}`,
    );
  }
  const big = "(select id from schools where slug = 'other-1')";
  await sql.query(
    `insert into children (school_id, id, class_id, name, note, entries) select ${big}, gen_random_uuid(), c.id, 'Child ' || n, '', ${BIG.answers} from generate_series(1, ${BIG.children}) n, (select id from classes where school_id = ${big} limit 1) c`,
  );
  const answersOf = (where: string, each: number, from: string) => `
    insert into answers (school_id, id, child_id, number, source, check_id, kind, item, outcome, ms, pass, help, way, marked_at, day, marked_by)
    select c.school_id, gen_random_uuid(), c.id, ${from} + n, 'check', k.id, 'card', (array['t=t','o=o','p=p','s=s','a=a','d=d','n=n','i=i','m=m','c=k','g=g','e=e'])[1 + n % 12],
      case when n % 7 = 0 then 'none' else 'right' end, 900, 1, 'none', 'seen', at, at::date, 'B.'
    from children c cross join lateral (select id from checks where school_id = c.school_id limit 1) k
      cross join generate_series(1, ${each}) n
      cross join lateral (select timestamptz '2024-09-02 08:00Z' + (n * interval '6 hours') as at) w
    where ${where}`;
  await sql.query(answersOf(`c.school_id = ${big} and c.name like 'Child %'`, BIG.answers, "0"));
  await sql.query("set session_replication_role = origin");
  await sql.query("vacuum analyze");
  console.log(`Now ${OTHERS} others are there, with ${(await count()).toLocaleString("en-GB")} entries in all.`);
  listening = true;
  const among = await costs(pages);
  listening = false;

  // A hundred times the answers, before all that are there, so that what is known stays as it is.
  const before = await count(home);
  const each = Math.round((before * 99) / children.length);
  await sql.query("set session_replication_role = replica");
  await sql.query(answersOf(`c.school_id = '${home}'`, each, "c.entries"));
  await sql.query(`update children set entries = entries + ${each} where school_id = '${home}'`);
  await sql.query("set session_replication_role = origin");
  await sql.query("vacuum analyze answers, children");
  await get("/api/gaps");
  console.log(`The demo school has ${(await count(home)).toLocaleString("en-GB")} entries now.`);
  const hundred = await costs(pages);

  const cell = (value: number) => value.toFixed(1);
  console.log(
    `\nMilliseconds: warm (median of ${RUNS}), cold (first after a start, median of ${STARTS}), and how often what it cost alone\n`,
  );
  console.log("| page | alone: warm, cold | among all | × | with 100 times the answers | × |");
  console.log("| --- | --: | --: | --: | --: | --: |");
  for (const name of Object.keys(pages)) {
    const [a, b, c] = [alone.get(name), among.get(name), hundred.get(name)] as [Costs, Costs, Costs];
    const pair = (one: Costs) => `${cell(one.warm)}, ${cell(one.cold)}`;
    const times = (one: Costs) => `${(one.warm / a.warm).toFixed(2)}, ${(one.cold / a.cold).toFixed(2)}`;
    console.log(`| ${[name, pair(a), pair(b), times(b), pair(c), times(c)].join(" | ")} |`);
  }
  console.log(
    "\nThe ten queries that were asked most, and how the server goes about each (columns of costs left out):",
  );
  for (const [query, { count: times, plan }] of [...plans]
    .sort((one, other) => other[1].count - one[1].count)
    .filter((_, at) => at < MOST_QUERIES)) {
    console.log(`\n${times} times: ${query.length > 160 ? `${query.slice(0, 160)} …` : query}`);
    for (const line of plan
      .split("\n")
      .filter((one) => /(?:Scan|Join|Nested|Aggregate|Sort|Index Cond|Filter)/.test(one))
      .slice(0, 12))
      console.log(`  ${line.replace(/ {2}\(cost=.*$/, "")}`);
  }
  const size = (await sql.query("select pg_size_pretty(pg_database_size(current_database())) as size")).rows[0].size;
  console.log(`\nThe database takes ${size}.`);
} finally {
  await app.stop();
  await sql.end();
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
}
