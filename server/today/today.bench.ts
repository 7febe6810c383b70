import { sql } from "drizzle-orm";
import { bench, describe } from "vitest";
import { getToday, listSessions } from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { oneOfEach } from "../testing-school.ts";

// What a school's past costs the pages that look ahead: sessions that were held, each with a report and three marks.

/** A school whose one group has had so many sessions in the days before. */
async function schoolWith(sessions: number): Promise<TestHouse> {
  const house = await openTestHouse();
  const { sessionId, childId } = await oneOfEach(house.ask, "Reed");
  const { owner } = house.store;
  // As the program would have written them one after the other; rules between tables hold.
  const statements = `
    create table past as select gen_random_uuid() as id, gen_random_uuid() as report_id, date '2026-11-19' - n % 900 as day
      from generate_series(1, ${sessions}) n;
    insert into sessions (school_id, id, group_id, held_on, version, plan, known, wholes, created_at)
      select s.school_id, p.id, s.group_id, p.day, 1, s.plan, s.known, s.wholes, p.day from past p, sessions s where s.id = '${sessionId}';
    insert into reports (school_id, id, session_id, by, at, note, by_link)
      select s.school_id, p.report_id, p.id, 'Reed D.', p.day, '', false from past p, sessions s where s.id = '${sessionId}';
    insert into report_came (school_id, report_id, child_id)
      select s.school_id, p.report_id, '${childId}' from past p, sessions s where s.id = '${sessionId}';
    insert into answers (school_id, id, child_id, number, source, session_id, report_id, kind, item, outcome, pass, help, way, marked_at, day, marked_by)
      select k.school_id, gen_random_uuid(), k.id, k.entries + row_number() over (), 'session', p.id, p.report_id, 'card', 't=t', 'right', 1, 'none', 'seen', p.day, p.day, 'Reed D.'
      from past p cross join generate_series(1, 3) cross join children k where k.id = '${childId}';
    update children set entries = entries + ${sessions * 3} where id = '${childId}';
    drop table past;
    analyze`;
  for (const one of statements.split(";")) await owner.execute(sql.raw(one));
  return house;
}

const [few, many] = [await schoolWith(20), await schoolWith(1500)];

describe("Today", () => {
  bench("baseline: after 20 sessions", async () => void (await few.ask(getToday, {})), { time: 2000 });
  bench("after 1,500", async () => void (await many.ask(getToday, {})), { time: 2000 });
});

describe("the list of sessions, by session", () => {
  bench("baseline: of 20", async () => void (await few.ask(listSessions, { query: {} })), { time: 2000 });
  bench("of 1,500", async () => void (await many.ask(listSessions, { query: {} })), { time: 2000 });
});
