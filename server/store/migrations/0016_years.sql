CREATE TABLE "years" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"begun_at" timestamp with time zone NOT NULL,
	"counts" jsonb NOT NULL,
	"before" jsonb,
	"undone_at" timestamp with time zone,
	CONSTRAINT "years_school_id_id_pk" PRIMARY KEY("school_id","id")
);
--> statement-breakpoint
ALTER TABLE "years" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "years" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "years" TO "keen_app";--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "left_on" date;--> statement-breakpoint
-- Of those who were archived before no one knows the day: their time begins now. An owner who is no superuser sees no row
-- while the policies are forced upon it.
ALTER TABLE "children" NO FORCE ROW LEVEL SECURITY;--> statement-breakpoint
UPDATE "children" SET "left_on" = current_date WHERE "archived";--> statement-breakpoint
ALTER TABLE "children" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "schools" ADD COLUMN "leavers_months" integer DEFAULT 12 NOT NULL;--> statement-breakpoint
ALTER TABLE "schools" ADD COLUMN "backup_weeks" integer DEFAULT 8 NOT NULL;--> statement-breakpoint
CREATE POLICY "of_school" ON "years" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);