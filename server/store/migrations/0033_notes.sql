CREATE TABLE "note_reads" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"note_id" uuid NOT NULL,
	"reader" text NOT NULL,
	CONSTRAINT "note_reads_school_id_note_id_reader_pk" PRIMARY KEY("school_id","note_id","reader")
);
--> statement-breakpoint
ALTER TABLE "note_reads" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "notes" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"child_id" uuid,
	"group_id" uuid,
	"session_id" uuid,
	"text" text NOT NULL,
	"who" text NOT NULL,
	"for_id" uuid,
	"by_id" uuid,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"until" date,
	"removed_at" timestamp with time zone,
	CONSTRAINT "notes_school_id_id_pk" PRIMARY KEY("school_id","id"),
	CONSTRAINT "notes_about" CHECK (num_nonnulls(child_id, group_id, session_id) = 1),
	CONSTRAINT "notes_one" CHECK ((who = 'one') = (for_id is not null))
);
--> statement-breakpoint
ALTER TABLE "notes" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "note_reads" ADD CONSTRAINT "note_reads_note" FOREIGN KEY ("school_id","note_id") REFERENCES "public"."notes"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notes" ADD CONSTRAINT "notes_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notes" ADD CONSTRAINT "notes_group" FOREIGN KEY ("school_id","group_id") REFERENCES "public"."groups"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notes" ADD CONSTRAINT "notes_session" FOREIGN KEY ("school_id","session_id") REFERENCES "public"."sessions"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "notes_of_child" ON "notes" USING btree ("school_id","child_id");--> statement-breakpoint
CREATE INDEX "notes_of_group" ON "notes" USING btree ("school_id","group_id");--> statement-breakpoint
CREATE INDEX "notes_of_session" ON "notes" USING btree ("school_id","session_id");--> statement-breakpoint
CREATE POLICY "of_school" ON "note_reads" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "notes" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
ALTER TABLE "notes" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "notes" TO "keen_app";--> statement-breakpoint
ALTER TABLE "note_reads" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "note_reads" TO "keen_app";
