CREATE TABLE "answers" (
	"id" uuid PRIMARY KEY NOT NULL,
	"child_id" uuid NOT NULL,
	"check_id" uuid,
	"session_id" uuid,
	"item" text,
	"outcome" text NOT NULL,
	"heard" text,
	"ms" integer,
	"pass" integer DEFAULT 1 NOT NULL,
	"voids" uuid,
	"marked_at" timestamp with time zone NOT NULL,
	"day" date NOT NULL,
	"marked_by" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "checks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"child_id" uuid NOT NULL,
	"scope" text NOT NULL,
	"items" jsonb NOT NULL,
	"seed" integer NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "children" (
	"id" uuid PRIMARY KEY NOT NULL,
	"class_id" uuid NOT NULL,
	"name" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"archived" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "classes" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"year_group" text NOT NULL,
	"order_id" uuid NOT NULL,
	"archived" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "group_members" (
	"version_id" uuid NOT NULL,
	"child_id" uuid NOT NULL,
	"locked" boolean DEFAULT false NOT NULL,
	"place" integer NOT NULL,
	CONSTRAINT "group_members_version_id_child_id_pk" PRIMARY KEY("version_id","child_id")
);
--> statement-breakpoint
CREATE TABLE "group_versions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"group_id" uuid NOT NULL,
	"name" text NOT NULL,
	"targets" jsonb NOT NULL,
	"saved_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "groups" (
	"id" uuid PRIMARY KEY NOT NULL,
	"closed" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "orders" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shipped" boolean DEFAULT false NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"content" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "report_came" (
	"report_id" uuid NOT NULL,
	"child_id" uuid NOT NULL,
	CONSTRAINT "report_came_report_id_child_id_pk" PRIMARY KEY("report_id","child_id")
);
--> statement-breakpoint
CREATE TABLE "report_marks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"report_id" uuid NOT NULL,
	"child_id" uuid NOT NULL,
	"item" text NOT NULL,
	"outcome" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "reports" (
	"id" uuid PRIMARY KEY NOT NULL,
	"session_id" uuid NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"reached" text,
	"note" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "school" (
	"id" integer PRIMARY KEY NOT NULL,
	"name" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "session_members" (
	"session_id" uuid NOT NULL,
	"child_id" uuid NOT NULL,
	"place" integer NOT NULL,
	CONSTRAINT "session_members_session_id_child_id_pk" PRIMARY KEY("session_id","child_id")
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"group_id" uuid NOT NULL,
	"held_on" date NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"plan" jsonb NOT NULL,
	"known" jsonb NOT NULL,
	"wholes" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "shares" (
	"session_id" uuid PRIMARY KEY NOT NULL,
	"token_hash" text NOT NULL,
	"ends_on" date NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "shares_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "taught" (
	"id" uuid PRIMARY KEY NOT NULL,
	"class_id" uuid NOT NULL,
	"step_id" text,
	"taught_on" date NOT NULL,
	"marked_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_check_id_checks_id_fk" FOREIGN KEY ("check_id") REFERENCES "public"."checks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "answers" ADD CONSTRAINT "answers_session_id_sessions_id_fk" FOREIGN KEY ("session_id") REFERENCES "public"."sessions"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "checks" ADD CONSTRAINT "checks_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "children" ADD CONSTRAINT "children_class_id_classes_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."classes"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "classes" ADD CONSTRAINT "classes_order_id_orders_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."orders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_version_id_group_versions_id_fk" FOREIGN KEY ("version_id") REFERENCES "public"."group_versions"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_versions" ADD CONSTRAINT "group_versions_group_id_groups_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."groups"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "report_came" ADD CONSTRAINT "report_came_report_id_reports_id_fk" FOREIGN KEY ("report_id") REFERENCES "public"."reports"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "report_came" ADD CONSTRAINT "report_came_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "report_marks" ADD CONSTRAINT "report_marks_report_id_reports_id_fk" FOREIGN KEY ("report_id") REFERENCES "public"."reports"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "report_marks" ADD CONSTRAINT "report_marks_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reports" ADD CONSTRAINT "reports_session_id_sessions_id_fk" FOREIGN KEY ("session_id") REFERENCES "public"."sessions"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_members" ADD CONSTRAINT "session_members_session_id_sessions_id_fk" FOREIGN KEY ("session_id") REFERENCES "public"."sessions"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_members" ADD CONSTRAINT "session_members_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_group_id_groups_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."groups"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_session_id_sessions_id_fk" FOREIGN KEY ("session_id") REFERENCES "public"."sessions"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "taught" ADD CONSTRAINT "taught_class_id_classes_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."classes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "answers_child" ON "answers" USING btree ("child_id","marked_at");--> statement-breakpoint
CREATE INDEX "answers_check" ON "answers" USING btree ("check_id");--> statement-breakpoint
CREATE UNIQUE INDEX "answers_voids" ON "answers" USING btree ("voids");--> statement-breakpoint
CREATE INDEX "checks_child" ON "checks" USING btree ("child_id");--> statement-breakpoint
CREATE INDEX "children_class" ON "children" USING btree ("class_id");--> statement-breakpoint
CREATE INDEX "group_members_child" ON "group_members" USING btree ("child_id");--> statement-breakpoint
CREATE INDEX "group_versions_group" ON "group_versions" USING btree ("group_id","saved_at");--> statement-breakpoint
CREATE INDEX "report_came_child" ON "report_came" USING btree ("child_id");--> statement-breakpoint
CREATE INDEX "report_marks_report" ON "report_marks" USING btree ("report_id");--> statement-breakpoint
CREATE INDEX "report_marks_child" ON "report_marks" USING btree ("child_id");--> statement-breakpoint
CREATE INDEX "reports_session" ON "reports" USING btree ("session_id");--> statement-breakpoint
CREATE INDEX "session_members_child" ON "session_members" USING btree ("child_id");--> statement-breakpoint
CREATE INDEX "sessions_group" ON "sessions" USING btree ("group_id");--> statement-breakpoint
CREATE INDEX "sessions_day" ON "sessions" USING btree ("held_on");--> statement-breakpoint
CREATE INDEX "taught_class" ON "taught" USING btree ("class_id","marked_at");