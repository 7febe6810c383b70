DO $$ BEGIN
	CREATE ROLE "keen_app";
EXCEPTION WHEN duplicate_object OR unique_violation THEN NULL; -- roles are of the whole cluster
END $$;--> statement-breakpoint
DO $$ BEGIN
	CREATE ROLE "keen_door";
EXCEPTION WHEN duplicate_object OR unique_violation THEN NULL; -- roles are of the whole cluster
END $$;--> statement-breakpoint
CREATE TABLE "schools" (
	"id" uuid PRIMARY KEY NOT NULL,
	"slug" text NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"accent" text DEFAULT 'neutral' NOT NULL,
	"time_zone" text,
	"checks" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"reading" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"words_version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "schools_slug_unique" UNIQUE("slug")
);--> statement-breakpoint
INSERT INTO "schools" ("id", "slug", "name", "accent", "time_zone", "checks", "reading")
SELECT gen_random_uuid(), 'school', coalesce("name", ''), coalesce("accent", 'neutral'), "time_zone", coalesce("checks", '{}'), coalesce("reading", '{}')
FROM (VALUES (1)) one("id") LEFT JOIN "school" USING ("id");--> statement-breakpoint
SELECT set_config('app.school', (SELECT "id"::text FROM "schools"), true);--> statement-breakpoint
CREATE TABLE "doors" (
	"kind" text NOT NULL,
	"key" text NOT NULL,
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	CONSTRAINT "doors_kind_key_pk" PRIMARY KEY("kind","key")
);--> statement-breakpoint
CREATE TABLE "member_classes" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"member_id" uuid NOT NULL,
	"class_id" uuid NOT NULL,
	CONSTRAINT "member_classes_school_id_member_id_class_id_pk" PRIMARY KEY("school_id","member_id","class_id")
);--> statement-breakpoint
CREATE TABLE "members" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	CONSTRAINT "members_school_id_id_pk" PRIMARY KEY("school_id","id")
);--> statement-breakpoint
CREATE TABLE "member_groups" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"member_id" uuid NOT NULL,
	"group_id" uuid NOT NULL,
	CONSTRAINT "member_groups_school_id_member_id_group_id_pk" PRIMARY KEY("school_id","member_id","group_id")
);--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "checks" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "classes" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "faces" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "group_members" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "group_versions" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "group_versions" ADD COLUMN "number" integer;--> statement-breakpoint
UPDATE "group_versions" SET "number" = placed."number"
FROM (SELECT "id", row_number() OVER (PARTITION BY "group_id" ORDER BY "saved_at", "id") AS "number" FROM "group_versions") placed
WHERE placed."id" = "group_versions"."id";--> statement-breakpoint
ALTER TABLE "group_versions" ALTER COLUMN "number" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "groups" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "orders" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "preparations" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "preparations" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "presets" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "presets" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "report_came" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "reports" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "session_members" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "shares" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "sittings" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "splits" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "taught" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "taught" ADD COLUMN "number" integer;--> statement-breakpoint
UPDATE "taught" SET "number" = placed."number"
FROM (SELECT "id", row_number() OVER (PARTITION BY "class_id" ORDER BY "marked_at", "id") AS "number" FROM "taught") placed
WHERE placed."id" = "taught"."id";--> statement-breakpoint
ALTER TABLE "taught" ALTER COLUMN "number" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "text_versions" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "texts" ADD COLUMN "school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "preparations" ALTER COLUMN "preparation" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "faces" DROP CONSTRAINT "faces_code_unique";--> statement-breakpoint
ALTER TABLE "shares" DROP CONSTRAINT "shares_token_hash_unique";--> statement-breakpoint
ALTER TABLE "answers" DROP CONSTRAINT "answers_child_id_children_id_fk";--> statement-breakpoint
ALTER TABLE "answers" DROP CONSTRAINT "answers_check_id_checks_id_fk";--> statement-breakpoint
ALTER TABLE "answers" DROP CONSTRAINT "answers_session_id_sessions_id_fk";--> statement-breakpoint
ALTER TABLE "answers" DROP CONSTRAINT "answers_reading_id_readings_id_fk";--> statement-breakpoint
ALTER TABLE "answers" DROP CONSTRAINT "answers_report_id_reports_id_fk";--> statement-breakpoint
ALTER TABLE "checks" DROP CONSTRAINT "checks_child_id_children_id_fk";--> statement-breakpoint
ALTER TABLE "checks" DROP CONSTRAINT "checks_sitting_id_sittings_id_fk";--> statement-breakpoint
ALTER TABLE "children" DROP CONSTRAINT "children_class_id_classes_id_fk";--> statement-breakpoint
ALTER TABLE "classes" DROP CONSTRAINT "classes_order_id_orders_id_fk";--> statement-breakpoint
ALTER TABLE "group_members" DROP CONSTRAINT "group_members_version_id_group_versions_id_fk";--> statement-breakpoint
ALTER TABLE "group_members" DROP CONSTRAINT "group_members_child_id_children_id_fk";--> statement-breakpoint
ALTER TABLE "group_versions" DROP CONSTRAINT "group_versions_group_id_groups_id_fk";--> statement-breakpoint
ALTER TABLE "readings" DROP CONSTRAINT "readings_child_id_children_id_fk";--> statement-breakpoint
ALTER TABLE "report_came" DROP CONSTRAINT "report_came_report_id_reports_id_fk";--> statement-breakpoint
ALTER TABLE "report_came" DROP CONSTRAINT "report_came_child_id_children_id_fk";--> statement-breakpoint
ALTER TABLE "reports" DROP CONSTRAINT "reports_session_id_sessions_id_fk";--> statement-breakpoint
ALTER TABLE "session_members" DROP CONSTRAINT "session_members_session_id_sessions_id_fk";--> statement-breakpoint
ALTER TABLE "session_members" DROP CONSTRAINT "session_members_child_id_children_id_fk";--> statement-breakpoint
ALTER TABLE "sessions" DROP CONSTRAINT "sessions_group_id_groups_id_fk";--> statement-breakpoint
ALTER TABLE "shares" DROP CONSTRAINT "shares_session_id_sessions_id_fk";--> statement-breakpoint
ALTER TABLE "taught" DROP CONSTRAINT "taught_class_id_classes_id_fk";--> statement-breakpoint
ALTER TABLE "text_versions" DROP CONSTRAINT "text_versions_text_id_texts_id_fk";--> statement-breakpoint
DROP INDEX "answers_child";--> statement-breakpoint
DROP INDEX "group_versions_group";--> statement-breakpoint
DROP INDEX "taught_class";--> statement-breakpoint
DROP INDEX "answers_child_day";--> statement-breakpoint
DROP INDEX "answers_check";--> statement-breakpoint
DROP INDEX "answers_reading";--> statement-breakpoint
DROP INDEX "answers_report";--> statement-breakpoint
DROP INDEX "answers_number";--> statement-breakpoint
DROP INDEX "answers_voids";--> statement-breakpoint
DROP INDEX "checks_child";--> statement-breakpoint
DROP INDEX "checks_sitting";--> statement-breakpoint
DROP INDEX "children_class";--> statement-breakpoint
DROP INDEX "group_members_child";--> statement-breakpoint
DROP INDEX "readings_child";--> statement-breakpoint
DROP INDEX "report_came_child";--> statement-breakpoint
DROP INDEX "reports_session";--> statement-breakpoint
DROP INDEX "session_members_child";--> statement-breakpoint
DROP INDEX "sessions_group";--> statement-breakpoint
DROP INDEX "sessions_day";--> statement-breakpoint
DROP INDEX "splits_key";--> statement-breakpoint
ALTER TABLE "group_members" DROP CONSTRAINT "group_members_version_id_child_id_pk";--> statement-breakpoint
ALTER TABLE "preparations" DROP CONSTRAINT "preparations_text_id_for_key_pk";--> statement-breakpoint
ALTER TABLE "report_came" DROP CONSTRAINT "report_came_report_id_child_id_pk";--> statement-breakpoint
ALTER TABLE "session_members" DROP CONSTRAINT "session_members_session_id_child_id_pk";--> statement-breakpoint
ALTER TABLE "text_versions" DROP CONSTRAINT "text_versions_text_id_version_pk";--> statement-breakpoint
ALTER TABLE "answers" DROP CONSTRAINT "answers_pkey";--> statement-breakpoint
ALTER TABLE "checks" DROP CONSTRAINT "checks_pkey";--> statement-breakpoint
ALTER TABLE "children" DROP CONSTRAINT "children_pkey";--> statement-breakpoint
ALTER TABLE "classes" DROP CONSTRAINT "classes_pkey";--> statement-breakpoint
ALTER TABLE "faces" DROP CONSTRAINT "faces_pkey";--> statement-breakpoint
ALTER TABLE "group_versions" DROP CONSTRAINT "group_versions_pkey";--> statement-breakpoint
ALTER TABLE "groups" DROP CONSTRAINT "groups_pkey";--> statement-breakpoint
ALTER TABLE "orders" DROP CONSTRAINT "orders_pkey";--> statement-breakpoint
ALTER TABLE "presets" DROP CONSTRAINT "presets_pkey";--> statement-breakpoint
ALTER TABLE "readings" DROP CONSTRAINT "readings_pkey";--> statement-breakpoint
ALTER TABLE "reports" DROP CONSTRAINT "reports_pkey";--> statement-breakpoint
ALTER TABLE "sessions" DROP CONSTRAINT "sessions_pkey";--> statement-breakpoint
ALTER TABLE "shares" DROP CONSTRAINT "shares_pkey";--> statement-breakpoint
ALTER TABLE "sittings" DROP CONSTRAINT "sittings_pkey";--> statement-breakpoint
ALTER TABLE "splits" DROP CONSTRAINT "splits_pkey";--> statement-breakpoint
ALTER TABLE "taught" DROP CONSTRAINT "taught_pkey";--> statement-breakpoint
ALTER TABLE "texts" DROP CONSTRAINT "texts_pkey";--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "checks" ADD CONSTRAINT "checks_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "children" ADD CONSTRAINT "children_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "classes" ADD CONSTRAINT "classes_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "faces" ADD CONSTRAINT "faces_school_id_desk_id_pk" PRIMARY KEY("school_id","desk_id");--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_school_id_version_id_child_id_pk" PRIMARY KEY("school_id","version_id","child_id");--> statement-breakpoint
ALTER TABLE "group_versions" ADD CONSTRAINT "group_versions_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "groups" ADD CONSTRAINT "groups_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "orders" ADD CONSTRAINT "orders_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "preparations" ADD CONSTRAINT "preparations_school_id_text_id_for_key_pk" PRIMARY KEY("school_id","text_id","for_key");--> statement-breakpoint
ALTER TABLE "presets" ADD CONSTRAINT "presets_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "report_came" ADD CONSTRAINT "report_came_school_id_report_id_child_id_pk" PRIMARY KEY("school_id","report_id","child_id");--> statement-breakpoint
ALTER TABLE "reports" ADD CONSTRAINT "reports_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "session_members" ADD CONSTRAINT "session_members_school_id_session_id_child_id_pk" PRIMARY KEY("school_id","session_id","child_id");--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_school_id_session_id_pk" PRIMARY KEY("school_id","session_id");--> statement-breakpoint
ALTER TABLE "sittings" ADD CONSTRAINT "sittings_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "splits" ADD CONSTRAINT "splits_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "taught" ADD CONSTRAINT "taught_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "text_versions" ADD CONSTRAINT "text_versions_school_id_text_id_version_pk" PRIMARY KEY("school_id","text_id","version");--> statement-breakpoint
ALTER TABLE "texts" ADD CONSTRAINT "texts_school_id_id_pk" PRIMARY KEY("school_id","id");--> statement-breakpoint
ALTER TABLE "member_classes" ADD CONSTRAINT "member_classes_member" FOREIGN KEY ("school_id","member_id") REFERENCES "public"."members"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member_classes" ADD CONSTRAINT "member_classes_class" FOREIGN KEY ("school_id","class_id") REFERENCES "public"."classes"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member_groups" ADD CONSTRAINT "member_groups_member" FOREIGN KEY ("school_id","member_id") REFERENCES "public"."members"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member_groups" ADD CONSTRAINT "member_groups_group" FOREIGN KEY ("school_id","group_id") REFERENCES "public"."groups"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_of_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_of_check" FOREIGN KEY ("school_id","check_id") REFERENCES "public"."checks"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_of_reading" FOREIGN KEY ("school_id","reading_id") REFERENCES "public"."readings"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_of_session" FOREIGN KEY ("school_id","session_id") REFERENCES "public"."sessions"("school_id","id") ON DELETE SET NULL ("session_id") ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_of_report" FOREIGN KEY ("school_id","report_id") REFERENCES "public"."reports"("school_id","id") ON DELETE SET NULL ("report_id") ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "checks" ADD CONSTRAINT "checks_of_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "checks" ADD CONSTRAINT "checks_of_sitting" FOREIGN KEY ("school_id","sitting_id") REFERENCES "public"."sittings"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "children" ADD CONSTRAINT "children_of_class" FOREIGN KEY ("school_id","class_id") REFERENCES "public"."classes"("school_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "classes" ADD CONSTRAINT "classes_order" FOREIGN KEY ("school_id","order_id") REFERENCES "public"."orders"("school_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_version" FOREIGN KEY ("school_id","version_id") REFERENCES "public"."group_versions"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_of_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_versions" ADD CONSTRAINT "group_versions_group" FOREIGN KEY ("school_id","group_id") REFERENCES "public"."groups"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_of_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "report_came" ADD CONSTRAINT "report_came_report" FOREIGN KEY ("school_id","report_id") REFERENCES "public"."reports"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "report_came" ADD CONSTRAINT "report_came_of_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reports" ADD CONSTRAINT "reports_of_session" FOREIGN KEY ("school_id","session_id") REFERENCES "public"."sessions"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_members" ADD CONSTRAINT "session_members_session" FOREIGN KEY ("school_id","session_id") REFERENCES "public"."sessions"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_members" ADD CONSTRAINT "session_members_of_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_of_group" FOREIGN KEY ("school_id","group_id") REFERENCES "public"."groups"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_session" FOREIGN KEY ("school_id","session_id") REFERENCES "public"."sessions"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "taught" ADD CONSTRAINT "taught_class" FOREIGN KEY ("school_id","class_id") REFERENCES "public"."classes"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "text_versions" ADD CONSTRAINT "text_versions_text" FOREIGN KEY ("school_id","text_id") REFERENCES "public"."texts"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "answers_session" ON "answers" USING btree ("school_id","session_id");--> statement-breakpoint
CREATE UNIQUE INDEX "faces_code" ON "faces" USING btree ("school_id","code");--> statement-breakpoint
CREATE UNIQUE INDEX "group_versions_number" ON "group_versions" USING btree ("school_id","group_id","number");--> statement-breakpoint
CREATE UNIQUE INDEX "shares_token" ON "shares" USING btree ("school_id","token_hash");--> statement-breakpoint
CREATE UNIQUE INDEX "taught_number" ON "taught" USING btree ("school_id","class_id","number");--> statement-breakpoint
CREATE INDEX "answers_child_day" ON "answers" USING btree ("school_id","child_id","day");--> statement-breakpoint
CREATE INDEX "answers_check" ON "answers" USING btree ("school_id","check_id");--> statement-breakpoint
CREATE INDEX "answers_reading" ON "answers" USING btree ("school_id","reading_id");--> statement-breakpoint
CREATE INDEX "answers_report" ON "answers" USING btree ("school_id","report_id");--> statement-breakpoint
CREATE UNIQUE INDEX "answers_number" ON "answers" USING btree ("school_id","child_id","number");--> statement-breakpoint
CREATE UNIQUE INDEX "answers_voids" ON "answers" USING btree ("school_id","voids");--> statement-breakpoint
CREATE INDEX "checks_child" ON "checks" USING btree ("school_id","child_id");--> statement-breakpoint
CREATE INDEX "checks_sitting" ON "checks" USING btree ("school_id","sitting_id");--> statement-breakpoint
CREATE INDEX "children_class" ON "children" USING btree ("school_id","class_id");--> statement-breakpoint
CREATE INDEX "group_members_child" ON "group_members" USING btree ("school_id","child_id");--> statement-breakpoint
CREATE INDEX "readings_child" ON "readings" USING btree ("school_id","child_id","read_at");--> statement-breakpoint
CREATE INDEX "report_came_child" ON "report_came" USING btree ("school_id","child_id");--> statement-breakpoint
CREATE INDEX "reports_session" ON "reports" USING btree ("school_id","session_id");--> statement-breakpoint
CREATE INDEX "session_members_child" ON "session_members" USING btree ("school_id","child_id");--> statement-breakpoint
CREATE INDEX "sessions_group" ON "sessions" USING btree ("school_id","group_id");--> statement-breakpoint
CREATE INDEX "sessions_day" ON "sessions" USING btree ("school_id","held_on");--> statement-breakpoint
CREATE UNIQUE INDEX "splits_key" ON "splits" USING btree ("school_id","key");--> statement-breakpoint
INSERT INTO "doors" ("kind", "key") SELECT 'share', "token_hash" FROM "shares" UNION ALL SELECT 'face', "code" FROM "faces";--> statement-breakpoint
ALTER TABLE "doors" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "member_classes" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "members" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "schools" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "member_groups" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "answers" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "checks" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "faces" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "presets" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "readings" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "sittings" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "children" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "classes" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "orders" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "splits" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "taught" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "group_members" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "group_versions" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "groups" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "preparations" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "report_came" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "reports" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "session_members" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "sessions" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "shares" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "text_versions" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "texts" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "doors" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "member_classes" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "members" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "schools" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "member_groups" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "answers" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "checks" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "faces" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "presets" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "readings" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "sittings" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "children" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "classes" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "orders" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "splits" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "taught" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "group_members" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "group_versions" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "groups" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "preparations" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "report_came" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "reports" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "session_members" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "sessions" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "shares" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "text_versions" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "texts" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE POLICY "of_school" ON "answers" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "checks" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "children" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "classes" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "faces" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "group_members" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "group_versions" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "groups" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "orders" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "preparations" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "presets" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "readings" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "report_came" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "reports" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "session_members" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "sessions" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "shares" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "sittings" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "splits" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "taught" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "text_versions" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "texts" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "doors" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "at_the_door" ON "doors" AS PERMISSIVE FOR SELECT TO "keen_door" USING (true);--> statement-breakpoint
CREATE POLICY "of_school" ON "member_classes" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "members" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "schools" AS PERMISSIVE FOR ALL TO "keen_app" USING (id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "at_the_door" ON "schools" AS PERMISSIVE FOR SELECT TO "keen_door" USING (true);--> statement-breakpoint
CREATE POLICY "of_school" ON "member_groups" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
GRANT USAGE ON SCHEMA "public" TO "keen_app", "keen_door";--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "doors", "member_classes", "members", "member_groups", "answers", "checks", "faces", "presets", "readings", "sittings", "children", "classes", "orders", "splits", "taught", "group_members", "group_versions", "groups", "preparations", "report_came", "reports", "session_members", "sessions", "shares", "text_versions", "texts" TO "keen_app";--> statement-breakpoint
GRANT SELECT, UPDATE ON "schools" TO "keen_app";--> statement-breakpoint
GRANT SELECT ON "doors" TO "keen_door";--> statement-breakpoint
GRANT SELECT ("id", "slug", "created_at") ON "schools" TO "keen_door";
