import { drizzle } from "drizzle-orm/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import { expect, test } from "vitest";
import { readingView } from "#contract";
import { allMigrations, databaseAt } from "./testing.ts";

test("a school from before own texts keeps its readings, its open codes and its answers", async () => {
  const client = await databaseAt(3);
  const [order, one, child, sitting, ended, reading, answer] = Array.from({ length: 7 }, () => crypto.randomUUID());
  const at = "2026-11-20T09:00:00.000Z";
  await client.exec(`
    insert into orders (id, content) values ('${order}', '{"name":"","kind":"","why":"","steps":[]}');
    insert into classes (id, name, year_group, order_id) values ('${one}', 'Kiln', 'Year 1', '${order}');
    insert into children (id, class_id, name) values ('${child}', '${one}', 'Ada M.');
    insert into sittings (id, name, started_at, face_code) values
      ('${sitting}', 'Open', '${at}', '123456'), ('${ended}', 'Ended', '${at}', null);
    insert into answers (id, child_id, item, outcome, marked_at, day, marked_by) values
      ('${answer}', '${child}', 'b=b', 'right', '${at}', '2026-11-20', 'Ms Harrow');
    insert into readings (id, child_id, text_id, title, text, marks, stopped_at, ms, voice, understanding, note, read_at, day, marked_by)
    values ('${reading}', '${child}', 'mud', 'Mud', 'Mud on a mat.', '[{"at":0,"kind":"told","heard":null}]', 3, 4000,
      '{"phrases":null,"stops":null,"pace":null,"expression":null}', '[]', '', '${at}', '2026-11-20', 'Ms Harrow');
  `);
  await migrate(drizzle(client), { migrationsFolder: allMigrations });
  expect((await client.query("select desk_id, code from faces")).rows).toEqual([
    { desk_id: sitting, code: "123456" },
  ]);
  expect((await client.query("select id, name from sittings order by name")).rows).toHaveLength(2);
  // The reading, which was not in the log then, is one entry of it.
  expect((await client.query("select id, reading_id from answers order by number")).rows).toEqual(
    [
      { id: answer, reading_id: null },
      { id: reading, reading_id: reading },
    ].sort((one, other) => ((one.id ?? "") < (other.id ?? "") ? -1 : 1)),
  );
  const [row] = (await client.query<Record<string, unknown>>("select * from readings")).rows;
  expect(row).toMatchObject({ how: "alone", turns: [], fit: null });
  expect(readingView.shape.marks.parse(row?.marks)).toEqual([{ at: 0, kind: "told", heard: null }]);
  await client.close();
});
