CREATE TABLE "pictures" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"key" text NOT NULL,
	"text" text NOT NULL,
	"image" text NOT NULL,
	"made_by" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "pictures_school_id_id_pk" PRIMARY KEY("school_id","id")
);
--> statement-breakpoint
ALTER TABLE "pictures" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE UNIQUE INDEX "pictures_key" ON "pictures" USING btree ("school_id","key");--> statement-breakpoint
CREATE POLICY "of_school" ON "pictures" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
ALTER TABLE "pictures" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "pictures" TO "keen_app";
