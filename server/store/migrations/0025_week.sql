CREATE TABLE "child_hours" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"child_id" uuid NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"hours" jsonb NOT NULL,
	CONSTRAINT "child_hours_school_id_child_id_pk" PRIMARY KEY("school_id","child_id")
);
--> statement-breakpoint
ALTER TABLE "child_hours" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "feeds" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"of" text NOT NULL,
	"about" uuid NOT NULL,
	"child_id" uuid,
	"class_id" uuid,
	"token_hash" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "feeds_school_id_id_pk" PRIMARY KEY("school_id","id")
);
--> statement-breakpoint
ALTER TABLE "feeds" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "meetings" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"placement_id" uuid NOT NULL,
	"due_on" date NOT NULL,
	"group_id" uuid NOT NULL,
	"on_day" date NOT NULL,
	"from_minute" integer NOT NULL,
	"to_minute" integer NOT NULL,
	"adult_id" uuid NOT NULL,
	"room_id" uuid,
	"cancelled" boolean DEFAULT false NOT NULL,
	"by_hand" boolean DEFAULT false NOT NULL,
	"sequence" integer DEFAULT 0 NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	CONSTRAINT "meetings_school_id_id_pk" PRIMARY KEY("school_id","id")
);
--> statement-breakpoint
ALTER TABLE "meetings" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "placements" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"group_id" uuid NOT NULL,
	"day" integer NOT NULL,
	"from_minute" integer NOT NULL,
	"to_minute" integer NOT NULL,
	"adult_id" uuid NOT NULL,
	"room_id" uuid,
	"fixed" boolean DEFAULT false NOT NULL,
	CONSTRAINT "placements_school_id_id_pk" PRIMARY KEY("school_id","id"),
	CONSTRAINT "placements_time" CHECK (from_minute < to_minute)
);
--> statement-breakpoint
ALTER TABLE "placements" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "schools" ADD COLUMN "week" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "child_hours" ADD CONSTRAINT "child_hours_of_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "feeds" ADD CONSTRAINT "feeds_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "feeds" ADD CONSTRAINT "feeds_class" FOREIGN KEY ("school_id","class_id") REFERENCES "public"."classes"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "meetings" ADD CONSTRAINT "meetings_group" FOREIGN KEY ("school_id","group_id") REFERENCES "public"."groups"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "placements" ADD CONSTRAINT "placements_group" FOREIGN KEY ("school_id","group_id") REFERENCES "public"."groups"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "feeds_token" ON "feeds" USING btree ("school_id","token_hash");--> statement-breakpoint
CREATE UNIQUE INDEX "meetings_due" ON "meetings" USING btree ("school_id","placement_id","due_on");--> statement-breakpoint
CREATE INDEX "meetings_day" ON "meetings" USING btree ("school_id","on_day");--> statement-breakpoint
CREATE POLICY "of_school" ON "child_hours" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "feeds" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "meetings" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "placements" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
ALTER TABLE "child_hours" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "child_hours" TO "keen_app";
--> statement-breakpoint
ALTER TABLE "feeds" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "feeds" TO "keen_app";
--> statement-breakpoint
ALTER TABLE "meetings" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "meetings" TO "keen_app";
--> statement-breakpoint
ALTER TABLE "placements" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "placements" TO "keen_app";
