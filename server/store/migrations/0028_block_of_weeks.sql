ALTER TABLE "groups" ADD COLUMN "block_weeks" integer DEFAULT 6 NOT NULL;--> statement-breakpoint
ALTER TABLE "groups" ADD COLUMN "block_fixed" jsonb DEFAULT '[]'::jsonb NOT NULL;