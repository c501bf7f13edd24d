CREATE SEQUENCE "public"."change_numbers" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1;--> statement-breakpoint
ALTER TABLE "change_log" ADD COLUMN "change_id" integer;--> statement-breakpoint
ALTER TABLE "change_log" ADD COLUMN "undoes" integer;--> statement-breakpoint
ALTER TABLE "change_log" ADD COLUMN "why" text;--> statement-breakpoint
CREATE INDEX "change_log_change_id_index" ON "change_log" USING btree ("change_id");--> statement-breakpoint
CREATE INDEX "change_log_actor_id_id_index" ON "change_log" USING btree ("actor_id","id");--> statement-breakpoint
ALTER TABLE "report_items" DROP COLUMN "version";