CREATE TABLE "faces" (
	"desk_id" uuid PRIMARY KEY NOT NULL,
	"code" text NOT NULL,
	"opened_at" timestamp with time zone NOT NULL,
	CONSTRAINT "faces_code_unique" UNIQUE("code")
);
--> statement-breakpoint
CREATE TABLE "preparations" (
	"text_id" text NOT NULL,
	"for_key" text NOT NULL,
	"preparation" jsonb NOT NULL,
	CONSTRAINT "preparations_text_id_for_key_pk" PRIMARY KEY("text_id","for_key")
);
--> statement-breakpoint
CREATE TABLE "text_versions" (
	"text_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"content" jsonb NOT NULL,
	"saved_at" timestamp with time zone NOT NULL,
	"saved_by" text NOT NULL,
	CONSTRAINT "text_versions_text_id_version_pk" PRIMARY KEY("text_id","version")
);
--> statement-breakpoint
CREATE TABLE "texts" (
	"id" uuid PRIMARY KEY NOT NULL
);
--> statement-breakpoint
INSERT INTO "faces" ("desk_id", "code", "opened_at") SELECT "id", "face_code", "started_at" FROM "sittings" WHERE "face_code" IS NOT NULL;--> statement-breakpoint
ALTER TABLE "sittings" DROP CONSTRAINT "sittings_face_code_unique";--> statement-breakpoint
ALTER TABLE "answers" ADD COLUMN "reading_id" uuid;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "how" text DEFAULT 'alone' NOT NULL;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "turns" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "fit" double precision;--> statement-breakpoint
ALTER TABLE "school" ADD COLUMN "reading" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "text_versions" ADD CONSTRAINT "text_versions_text_id_texts_id_fk" FOREIGN KEY ("text_id") REFERENCES "public"."texts"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_reading_id_readings_id_fk" FOREIGN KEY ("reading_id") REFERENCES "public"."readings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "answers_reading" ON "answers" USING btree ("reading_id");--> statement-breakpoint
ALTER TABLE "sittings" DROP COLUMN "face_code";