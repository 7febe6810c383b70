CREATE TABLE "standings" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"child_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"basis" text NOT NULL,
	"shown" jsonb NOT NULL,
	CONSTRAINT "standings_school_id_child_id_pk" PRIMARY KEY("school_id","child_id")
);
--> statement-breakpoint
ALTER TABLE "standings" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "standings" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "standings" TO "keen_app";--> statement-breakpoint
ALTER TABLE "standings" ADD CONSTRAINT "standings_of_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE POLICY "of_school" ON "standings" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);