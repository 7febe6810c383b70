CREATE TABLE "device_codes" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"device_id" uuid NOT NULL,
	"member_id" uuid NOT NULL,
	"hash" text NOT NULL,
	CONSTRAINT "device_codes_school_id_device_id_member_id_pk" PRIMARY KEY("school_id","device_id","member_id")
);
--> statement-breakpoint
ALTER TABLE "device_codes" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "device_codes" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "devices" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"token_hash" text NOT NULL,
	"let_in_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "devices_school_id_id_pk" PRIMARY KEY("school_id","id")
);
--> statement-breakpoint
ALTER TABLE "devices" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "devices" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "schools" ADD COLUMN "lock_minutes" integer DEFAULT 5 NOT NULL;--> statement-breakpoint
ALTER TABLE "device_codes" ADD CONSTRAINT "device_codes_device" FOREIGN KEY ("school_id","device_id") REFERENCES "public"."devices"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "device_codes" ADD CONSTRAINT "device_codes_member" FOREIGN KEY ("school_id","member_id") REFERENCES "public"."members"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "devices_token" ON "devices" USING btree ("school_id","token_hash");--> statement-breakpoint
CREATE POLICY "of_school" ON "device_codes" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
CREATE POLICY "of_school" ON "devices" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "devices", "device_codes" TO "keen_app";
