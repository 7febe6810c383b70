CREATE TABLE "presets" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"purpose" text NOT NULL,
	"sections" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sittings" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"face_code" text,
	CONSTRAINT "sittings_face_code_unique" UNIQUE("face_code")
);
--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "kind" text DEFAULT 'say' NOT NULL;--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "tags" jsonb;--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "units" jsonb;--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "text" text;--> statement-breakpoint
ALTER TABLE "checks" ADD COLUMN "sitting_id" uuid;--> statement-breakpoint
INSERT INTO "sittings" ("id", "name", "started_at") SELECT "id", 'See and say', "started_at" FROM "checks";--> statement-breakpoint
UPDATE "checks" SET "sitting_id" = "id";--> statement-breakpoint
ALTER TABLE "checks" ALTER COLUMN "sitting_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "checks" ADD COLUMN "place" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "checks" ADD COLUMN "part" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "checks" ADD COLUMN "kind" text DEFAULT 'say' NOT NULL;--> statement-breakpoint
ALTER TABLE "checks" ADD COLUMN "setup" jsonb;--> statement-breakpoint
ALTER TABLE "school" ADD COLUMN "checks" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "checks" ADD CONSTRAINT "checks_sitting_id_sittings_id_fk" FOREIGN KEY ("sitting_id") REFERENCES "public"."sittings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "answers_child_day" ON "answers" USING btree ("child_id","day");--> statement-breakpoint
CREATE INDEX "checks_sitting" ON "checks" USING btree ("sitting_id");