ALTER TABLE "readings" ADD COLUMN "removed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "reports" ADD COLUMN "reading_ids" jsonb DEFAULT '[]'::jsonb NOT NULL;