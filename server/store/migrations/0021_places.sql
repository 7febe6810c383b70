CREATE TABLE "places" (
	"school_id" uuid DEFAULT current_setting('app.school')::uuid NOT NULL,
	"id" uuid NOT NULL,
	"child_id" uuid,
	"group_id" uuid,
	"number" integer NOT NULL,
	"order_id" uuid,
	"step_id" text,
	"again" boolean DEFAULT false NOT NULL,
	"taught_on" date NOT NULL,
	"marked_at" timestamp with time zone NOT NULL,
	CONSTRAINT "places_school_id_id_pk" PRIMARY KEY("school_id","id"),
	CONSTRAINT "places_owner" CHECK ((child_id is null) <> (group_id is null))
);
--> statement-breakpoint
ALTER TABLE "places" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "places" ADD CONSTRAINT "places_child" FOREIGN KEY ("school_id","child_id") REFERENCES "public"."children"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "places" ADD CONSTRAINT "places_group" FOREIGN KEY ("school_id","group_id") REFERENCES "public"."groups"("school_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "places" ADD CONSTRAINT "places_order" FOREIGN KEY ("school_id","order_id") REFERENCES "public"."orders"("school_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "places_of_child" ON "places" USING btree ("school_id","child_id","number");--> statement-breakpoint
CREATE UNIQUE INDEX "places_of_group" ON "places" USING btree ("school_id","group_id","number");--> statement-breakpoint
CREATE POLICY "of_school" ON "places" AS PERMISSIVE FOR ALL TO "keen_app" USING (school_id = (select nullif(current_setting('app.school', true), ''))::uuid) WITH CHECK (school_id = (select nullif(current_setting('app.school', true), ''))::uuid);--> statement-breakpoint
ALTER TABLE "places" FORCE ROW LEVEL SECURITY;--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON "places" TO "keen_app";
