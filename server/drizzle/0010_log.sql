CREATE TABLE "log_head" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"entries" integer NOT NULL,
	"last_id" integer NOT NULL,
	"hash" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "match_decisions" DISABLE ROW LEVEL SECURITY;--> statement-breakpoint
DROP TABLE "match_decisions" CASCADE;--> statement-breakpoint
CREATE INDEX "scores_enrollment_id_index" ON "scores" USING btree ("enrollment_id");--> statement-breakpoint
CREATE INDEX "change_log_at_index" ON "change_log" USING btree ("at");--> statement-breakpoint
CREATE INDEX "computed_grades_import_id_index" ON "computed_grades" USING btree ("import_id");--> statement-breakpoint
ALTER TABLE "calculation_policies" DROP COLUMN "version";--> statement-breakpoint
ALTER TABLE "schools" DROP COLUMN "calendar_version";--> statement-breakpoint
ALTER TABLE "courses" DROP COLUMN "version";--> statement-breakpoint
ALTER TABLE "breaks" ADD CONSTRAINT "breaks_days_in_order" CHECK ("breaks"."starts_on" <= "breaks"."ends_on");--> statement-breakpoint
ALTER TABLE "periods" ADD CONSTRAINT "periods_days_in_order" CHECK ("periods"."starts_on" <= "periods"."ends_on");--> statement-breakpoint
ALTER TABLE "grades" ADD CONSTRAINT "grades_label_or_code" CHECK ("grades"."label" IS NULL OR "grades"."code" IS NULL);--> statement-breakpoint
ALTER TABLE "grades" ADD CONSTRAINT "grades_percent_not_negative" CHECK ("grades"."percent" >= 0);--> statement-breakpoint
ALTER TABLE "posting_windows" ADD CONSTRAINT "posting_windows_in_order" CHECK ("posting_windows"."opens_at" < "posting_windows"."closes_at");--> statement-breakpoint
ALTER TABLE "posting_windows" ADD CONSTRAINT "posting_windows_grace_after_close" CHECK ("posting_windows"."grace_until" >= "posting_windows"."closes_at");--> statement-breakpoint
INSERT INTO "log_head" ("id", "entries", "last_id", "hash")
SELECT 1, count(*), coalesce(max(id), 0), coalesce((SELECT hash FROM change_log ORDER BY id DESC LIMIT 1), repeat('0', 64)) FROM change_log;
