ALTER TABLE "reports" ADD COLUMN "by_link" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "removed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "texts" ADD COLUMN "removed_at" timestamp with time zone;