ALTER TABLE "accounts"."second_factors" ADD COLUMN "used_code" text;--> statement-breakpoint
ALTER TABLE "accounts"."second_factors" ADD COLUMN "used_at" timestamp with time zone;