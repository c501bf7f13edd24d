ALTER TABLE "grades" ADD COLUMN "hours" numeric(6, 2);--> statement-breakpoint
ALTER TABLE "report_items" ADD COLUMN "asks_hours" boolean DEFAULT false NOT NULL;