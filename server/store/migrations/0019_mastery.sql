ALTER TABLE "schools" ADD COLUMN "secure_when" jsonb;--> statement-breakpoint
ALTER TABLE "schools" ADD COLUMN "held" integer DEFAULT 1 NOT NULL;