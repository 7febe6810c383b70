CREATE TABLE "accounts"."passkeys" (
	"id" uuid PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"credential_id" text NOT NULL,
	"public_key" text NOT NULL,
	"counter" bigint NOT NULL,
	"transports" text[] NOT NULL,
	"name" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "passkeys_credential_id_unique" UNIQUE("credential_id")
);
--> statement-breakpoint
ALTER TABLE "accounts"."sign_ins" ADD COLUMN "by_passkey" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "accounts"."passkeys" ADD CONSTRAINT "passkeys_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "accounts"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "passkeys_person" ON "accounts"."passkeys" USING btree ("person_id");--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "accounts"."passkeys" TO "keen_people";
