CREATE TABLE "erased" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"child_id" uuid NOT NULL,
	"erased_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "erased_school_id_child_id_pk" PRIMARY KEY("school_id","child_id")
);
--> statement-breakpoint
ALTER TABLE "erased" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "erased" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "erased" TO "keen_app";--> statement-breakpoint
ALTER TABLE "schools" ADD COLUMN "backed_up_at" timestamp with time zone;--> statement-breakpoint
CREATE POLICY "of_school" ON "erased" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);