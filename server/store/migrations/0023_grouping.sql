CREATE TABLE "moves_off" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"child_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"until" date NOT NULL,
	CONSTRAINT "moves_off_school_id_child_id_kind_pk" PRIMARY KEY("school_id","child_id","kind")
);
--> statement-breakpoint
ALTER TABLE "moves_off" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "next_things" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"child_id" uuid,
	"class_id" uuid,
	"gpc" text NOT NULL,
	"how" text NOT NULL,
	"until" date,
	"by" text NOT NULL,
	"since" date NOT NULL,
	CONSTRAINT "next_things_school_id_id_pk" PRIMARY KEY("school_id","id"),
	CONSTRAINT "next_things_whose" CHECK ((child_id is null) <> (class_id is null))
);
--> statement-breakpoint
ALTER TABLE "next_things" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "wishes" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"child_id" uuid NOT NULL,
	"other_id" uuid,
	"by" text NOT NULL,
	"since" date NOT NULL,
	CONSTRAINT "wishes_school_id_id_pk" PRIMARY KEY("school_id","id"),
	CONSTRAINT "wishes_pair" CHECK ((kind = 'alone') = (other_id is null))
);
--> statement-breakpoint
ALTER TABLE "wishes" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "schools" ADD COLUMN "grouping" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "group_versions" ADD COLUMN "why" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "moves_off" ADD CONSTRAINT "moves_off_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "next_things" ADD CONSTRAINT "next_things_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "next_things" ADD CONSTRAINT "next_things_class" FOREIGN KEY ("school_id","class_id") REFERENCES "public"."classes"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wishes" ADD CONSTRAINT "wishes_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wishes" ADD CONSTRAINT "wishes_other" FOREIGN KEY ("school_id","other_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "next_things_of_child" ON "next_things" USING btree ("school_id","child_id","gpc");--> statement-breakpoint
CREATE UNIQUE INDEX "next_things_of_class" ON "next_things" USING btree ("school_id","class_id","gpc");--> statement-breakpoint
CREATE POLICY "of_school" ON "moves_off" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "next_things" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "wishes" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
ALTER TABLE "wishes" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "wishes" TO "keen_app";
--> statement-breakpoint
ALTER TABLE "next_things" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "next_things" TO "keen_app";
--> statement-breakpoint
ALTER TABLE "moves_off" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "moves_off" TO "keen_app";
