DROP INDEX "answers_reading";--> statement-breakpoint
DROP INDEX "answers_session";--> statement-breakpoint
DROP INDEX "answers_report";--> statement-breakpoint
DROP INDEX "answers_voids";--> statement-breakpoint
CREATE INDEX "answers_reading" ON "answers" USING btree ("school_id","reading_id") WHERE reading_id is not null;--> statement-breakpoint
CREATE INDEX "answers_session" ON "answers" USING btree ("school_id","session_id") WHERE session_id is not null;--> statement-breakpoint
CREATE INDEX "answers_report" ON "answers" USING btree ("school_id","report_id") WHERE report_id is not null;--> statement-breakpoint
CREATE UNIQUE INDEX "answers_voids" ON "answers" USING btree ("school_id","voids") WHERE voids is not null;