CREATE TABLE "splits" (
	"id" uuid PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"text" text NOT NULL,
	"units" jsonb NOT NULL,
	"reason" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "school" ADD COLUMN "accent" text DEFAULT 'neutral' NOT NULL;--> statement-breakpoint
CREATE UNIQUE INDEX "splits_key" ON "splits" USING btree ("key");