CREATE TABLE "readings" (
	"id" uuid PRIMARY KEY NOT NULL,
	"child_id" uuid NOT NULL,
	"text_id" text NOT NULL,
	"title" text NOT NULL,
	"text" text NOT NULL,
	"marks" jsonb NOT NULL,
	"stopped_at" integer,
	"ms" integer,
	"voice" jsonb NOT NULL,
	"understanding" jsonb NOT NULL,
	"note" text NOT NULL,
	"read_at" timestamp with time zone NOT NULL,
	"day" date NOT NULL,
	"marked_by" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "readings_child" ON "readings" USING btree ("child_id","read_at");