ALTER TABLE "answers" ALTER COLUMN "kind" SET DEFAULT 'card';--> statement-breakpoint
ALTER TABLE "checks" ALTER COLUMN "kind" SET DEFAULT 'card';--> statement-breakpoint
UPDATE "answers" SET "kind" = 'card' WHERE "kind" = 'say';--> statement-breakpoint
UPDATE "checks" SET "kind" = 'card' WHERE "kind" = 'say';--> statement-breakpoint
UPDATE "presets" SET "sections" = (
	SELECT jsonb_agg(CASE WHEN one.part->>'kind' = 'say' THEN jsonb_set(one.part, '{kind}', '"card"') ELSE one.part END ORDER BY one.place)
	FROM jsonb_array_elements("sections") WITH ORDINALITY AS one(part, place)
) WHERE "sections" @> '[{"kind": "say"}]';
