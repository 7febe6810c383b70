CREATE SCHEMA "accounts";
--> statement-breakpoint
DO $$ BEGIN
	CREATE ROLE "keen_people";
EXCEPTION WHEN duplicate_object OR unique_violation THEN NULL; -- roles are of the whole cluster
END $$;--> statement-breakpoint
CREATE TABLE "invitations" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"member_id" uuid,
	"made_at" timestamp with time zone NOT NULL,
	"ends_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "invitations_school_id_id_pk" PRIMARY KEY("school_id","id")
);
--> statement-breakpoint
ALTER TABLE "invitations" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "invitations" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "trail" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"member_id" uuid,
	"by" text NOT NULL,
	"did" text NOT NULL,
	"about" text DEFAULT '' NOT NULL,
	"count" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "trail_school_id_id_pk" PRIMARY KEY("school_id","id")
);
--> statement-breakpoint
ALTER TABLE "trail" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "trail" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "accounts"."passphrases" (
	"id" uuid PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"person_id" uuid NOT NULL,
	"hash" text,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "accounts"."secrets" (
	"name" text PRIMARY KEY NOT NULL,
	"value" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "accounts"."sign_ins" (
	"id" uuid PRIMARY KEY NOT NULL,
	"token" text NOT NULL,
	"person_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	CONSTRAINT "sign_ins_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "accounts"."tries" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer NOT NULL,
	"expire" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "accounts"."second_factors" (
	"id" uuid PRIMARY KEY NOT NULL,
	"secret" text NOT NULL,
	"backup_codes" text NOT NULL,
	"person_id" uuid NOT NULL,
	"verified" boolean,
	"failed" integer,
	"locked_until" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "accounts"."people" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"username" text,
	"second_factor" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	CONSTRAINT "people_email_unique" UNIQUE("email"),
	CONSTRAINT "people_username_unique" UNIQUE("username")
);
--> statement-breakpoint
CREATE TABLE "accounts"."steps" (
	"id" uuid PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "members" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "members" ADD COLUMN "account_id" uuid;--> statement-breakpoint
ALTER TABLE "members" ADD COLUMN "typed_names" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "members" ADD COLUMN "removed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "schools" ADD COLUMN "demo" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "schools" ADD COLUMN "trail_months" integer DEFAULT 24 NOT NULL;--> statement-breakpoint
ALTER TABLE "invitations" ADD CONSTRAINT "invitations_member" FOREIGN KEY ("school_id","member_id") REFERENCES "public"."members"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "accounts"."passphrases" ADD CONSTRAINT "passphrases_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "accounts"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "accounts"."sign_ins" ADD CONSTRAINT "sign_ins_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "accounts"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "accounts"."second_factors" ADD CONSTRAINT "second_factors_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "accounts"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "invitations_token" ON "invitations" USING btree ("school_id","token_hash");--> statement-breakpoint
CREATE INDEX "trail_at" ON "trail" USING btree ("school_id","at");--> statement-breakpoint
CREATE INDEX "passphrases_person" ON "accounts"."passphrases" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "sign_ins_person" ON "accounts"."sign_ins" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "second_factors_person" ON "accounts"."second_factors" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "steps_identifier" ON "accounts"."steps" USING btree ("identifier");--> statement-breakpoint
CREATE UNIQUE INDEX "members_name" ON "members" USING btree ("school_id",lower("name")) WHERE removed_at is null;--> statement-breakpoint
CREATE UNIQUE INDEX "members_account" ON "members" USING btree ("school_id","account_id");--> statement-breakpoint
CREATE POLICY "of_school" ON "invitations" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "trail" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "old_enough" ON "trail" AS RESTRICTIVE FOR DELETE TO "keen_app" USING (at < now() - interval '27 days');--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "invitations" TO "keen_app";--> statement-breakpoint
-- No row of the trail is changed by anyone.
GRANT SELECT, INSERT, DELETE ON "trail" TO "keen_app";--> statement-breakpoint
GRANT USAGE ON SCHEMA "accounts" TO "keen_people";--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA "accounts" TO "keen_people";
