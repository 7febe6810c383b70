ALTER TABLE "children" ADD COLUMN "away_on" date[] DEFAULT '{}' NOT NULL;
--> statement-breakpoint
UPDATE "children" SET "away_on" = ARRAY["absent_on"] WHERE "absent_on" IS NOT NULL;