ALTER TABLE "children" ADD COLUMN "letter_size" text DEFAULT 'usual' NOT NULL;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "letter_spacing" text DEFAULT 'usual' NOT NULL;