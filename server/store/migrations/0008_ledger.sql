ALTER TABLE "answers" ADD COLUMN "number" integer;--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "source" text;--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "report_id" uuid;--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "help" text;--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "way" text;--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "reading" jsonb;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "entries" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_report_id_reports_id_fk" FOREIGN KEY ("report_id") REFERENCES "public"."reports"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
UPDATE "answers" SET "report_id" = marks."report_id", "session_id" = reports."session_id"
FROM "report_marks" marks JOIN "reports" reports ON reports."id" = marks."report_id"
WHERE "answers"."id" = marks."id" AND "answers"."check_id" IS NULL AND "answers"."reading_id" IS NULL;--> statement-breakpoint
UPDATE "answers" SET "check_id" = target."check_id", "session_id" = target."session_id", "reading_id" = target."reading_id", "report_id" = target."report_id"
FROM "answers" target WHERE target."id" = "answers"."voids";--> statement-breakpoint
UPDATE "answers" SET
	"source" = CASE WHEN "check_id" IS NOT NULL THEN 'check' WHEN "reading_id" IS NOT NULL THEN 'reading' ELSE 'session' END;--> statement-breakpoint
UPDATE "answers" SET
	"help" = 'none',
	"way" = CASE WHEN "source" = 'reading' THEN 'text' WHEN "kind" IN ('write', 'dictation', 'listen') THEN 'heard' WHEN "kind" IN ('find', 'paper') THEN 'chosen' ELSE 'seen' END
WHERE "outcome" NOT IN ('void', 'note', 'stop');--> statement-breakpoint
DELETE FROM "answers" WHERE "source" = 'reading';--> statement-breakpoint
INSERT INTO "answers" ("id", "child_id", "source", "reading_id", "kind", "outcome", "reading", "marked_at", "day", "marked_by")
SELECT "id", "child_id", 'reading', "id", 'words', 'reading', jsonb_build_object('text', "text", 'marks', "marks", 'stoppedAt', "stopped_at"), "read_at", "day", "marked_by"
FROM "readings" WHERE "how" <> 'together';--> statement-breakpoint
UPDATE "answers" SET "number" = placed."number"
FROM (
	SELECT "id", row_number() OVER (PARTITION BY "child_id" ORDER BY ("outcome" = 'void'), "marked_at", "id") AS "number" FROM "answers"
) placed WHERE placed."id" = "answers"."id";--> statement-breakpoint
UPDATE "children" SET "entries" = (SELECT count(*) FROM "answers" WHERE "answers"."child_id" = "children"."id");--> statement-breakpoint
ALTER TABLE "answers" ALTER COLUMN "number" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "answers" ALTER COLUMN "source" SET NOT NULL;--> statement-breakpoint
CREATE INDEX "answers_report" ON "answers" USING btree ("report_id");--> statement-breakpoint
CREATE UNIQUE INDEX "answers_number" ON "answers" USING btree ("child_id","number");--> statement-breakpoint
DROP TABLE "report_marks";
