CREATE TABLE "file_columns" (
	"import_id" integer NOT NULL,
	"position" integer NOT NULL,
	"item_id" integer NOT NULL,
	CONSTRAINT "file_columns_import_id_item_id_pk" PRIMARY KEY("import_id","item_id")
);--> statement-breakpoint
CREATE TABLE "file_pieces" (
	"import_id" integer NOT NULL,
	"piece" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "file_pieces_import_id_piece_pk" PRIMARY KEY("import_id","piece")
);--> statement-breakpoint
ALTER TABLE "file_row_outcomes" DROP CONSTRAINT "file_row_outcomes_import_id_file_imports_id_fk";--> statement-breakpoint
ALTER TABLE "file_row_outcomes" DROP CONSTRAINT "file_row_outcomes_enrollment_id_enrollments_id_fk";--> statement-breakpoint
ALTER TABLE "file_row_outcomes" DROP CONSTRAINT "file_row_outcomes_before_import_id_file_imports_id_fk";--> statement-breakpoint
ALTER TABLE "computed_grades" DROP CONSTRAINT "computed_grades_enrollment_id_item_id_period_id_pk";--> statement-breakpoint
ALTER TABLE "file_row_outcomes" DROP CONSTRAINT "file_row_outcomes_import_id_row_pk";--> statement-breakpoint
ALTER TABLE "computed_grades" ADD CONSTRAINT "computed_grades_enrollment_id_item_id_period_id_import_id_pk" PRIMARY KEY("enrollment_id","item_id","period_id","import_id");--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "encoding" text;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "form" jsonb;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "header" jsonb;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "sample_rows" jsonb;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "proposals" jsonb;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "section_column" integer;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "named_sections" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "row_count" integer;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "step_count" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "steps_done" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "plan_number" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "plan" jsonb;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "problem" jsonb;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "asked_by" integer;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "asked_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "accepted_by" integer;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "worker" text;--> statement-breakpoint
ALTER TABLE "file_imports" ADD COLUMN "worker_until" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "file_row_outcomes" ADD COLUMN "item_id" integer;--> statement-breakpoint
ALTER TABLE "file_row_outcomes" ADD COLUMN "given_id" text;--> statement-breakpoint
ALTER TABLE "file_row_outcomes" ADD COLUMN "given_section" text;--> statement-breakpoint
ALTER TABLE "file_row_outcomes" ADD COLUMN "value" text;--> statement-breakpoint
ALTER TABLE "file_row_outcomes" ADD COLUMN "same_as" integer[];--> statement-breakpoint
ALTER TABLE "file_columns" ADD CONSTRAINT "file_columns_import_id_file_imports_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."file_imports"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "file_columns" ADD CONSTRAINT "file_columns_item_id_report_items_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."report_items"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "file_pieces" ADD CONSTRAINT "file_pieces_import_id_file_imports_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."file_imports"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "file_imports" ADD CONSTRAINT "file_imports_asked_by_people_id_fk" FOREIGN KEY ("asked_by") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "file_imports" ADD CONSTRAINT "file_imports_accepted_by_people_id_fk" FOREIGN KEY ("accepted_by") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "file_row_outcomes_left_out" ON "file_row_outcomes" USING btree ("import_id","outcome","row") WHERE outcome NOT IN ('new', 'changed', 'same');--> statement-breakpoint
UPDATE "file_imports" f SET "encoding" = 'UTF-8', "form" = '{"encoding":"utf8","delimiter":",","lineEnd":"\n"}'::jsonb,
  "proposals" = '{"id":null,"sectionColumn":null,"section":null,"grades":[]}'::jsonb,
  "header" = coalesce((SELECT "cells" FROM "file_rows" r WHERE r."import_id" = f."id" AND r."row" = f."header_row"), '[]'::jsonb),
  "sample_rows" = coalesce((SELECT jsonb_agg("cells" ORDER BY "row") FROM "file_rows" r WHERE r."import_id" = f."id" AND r."row" BETWEEN f."header_row" + 1 AND f."header_row" + 5), '[]'::jsonb),
  "row_count" = (SELECT count(*)::int FROM "file_rows" r WHERE r."import_id" = f."id"),
  "accepted_by" = CASE WHEN "accepted_at" IS NOT NULL THEN "read_by" END,
  "plan" = (SELECT CASE WHEN count(*) > 0 THEN jsonb_build_object('counts', jsonb_object_agg("outcome", "n"), 'notInFile', '{"count":0,"names":[]}'::jsonb, 'unknownSections', '[]'::jsonb) END
            FROM (SELECT "outcome", count(*)::int AS "n" FROM "file_row_outcomes" o WHERE o."import_id" = f."id" GROUP BY 1) each),
  "status" = CASE WHEN "status" = 'read' AND "id_column" IS NOT NULL AND "grade_column" IS NOT NULL AND "section_id" IS NOT NULL THEN 'planning' ELSE "status" END;--> statement-breakpoint
INSERT INTO "file_columns" ("import_id", "position", "item_id") SELECT "id", "grade_column", "item_id" FROM "file_imports" WHERE "grade_column" IS NOT NULL;--> statement-breakpoint
INSERT INTO "file_pieces" ("import_id", "piece", "bytes")
SELECT "import_id", ("row" - 1) / 5000, convert_to(string_agg("line", E'\n' ORDER BY "row") || E'\n', 'UTF8')
FROM (SELECT "import_id", "row", (SELECT string_agg('"' || replace("cell", '"', '""') || '"', ',' ORDER BY "at") FROM jsonb_array_elements_text("cells") WITH ORDINALITY AS each ("cell", "at")) AS "line" FROM "file_rows") lines
GROUP BY "import_id", ("row" - 1) / 5000;--> statement-breakpoint
UPDATE "file_row_outcomes" o SET "item_id" = f."item_id", "given_id" = coalesce(r."cells" ->> f."id_column", ''), "value" = coalesce(r."cells" ->> f."grade_column", '')
FROM "file_imports" f LEFT JOIN "file_rows" r ON r."import_id" = f."id" WHERE f."id" = o."import_id" AND r."row" = o."row";--> statement-breakpoint
INSERT INTO "computed_grades" ("item_id", "period_id", "enrollment_id", "percent", "import_id", "import_row")
SELECT f."item_id", f."period_id", o."enrollment_id", o."before", o."before_import_id", o."before_import_row"
FROM "file_row_outcomes" o JOIN "file_imports" f ON f."id" = o."import_id" JOIN "file_imports" b ON b."id" = o."before_import_id"
WHERE f."status" = 'accepted' AND b."status" = 'accepted' AND o."outcome" = 'changed'
UNION ALL
SELECT f."item_id", f."period_id", o."enrollment_id", o."after", f."id", o."row"
FROM "file_row_outcomes" o JOIN "file_imports" f ON f."id" = o."import_id" WHERE f."status" = 'accepted' AND o."outcome" = 'same'
ON CONFLICT DO NOTHING;--> statement-breakpoint
ALTER TABLE "file_imports" ALTER COLUMN "encoding" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "file_imports" ALTER COLUMN "form" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "file_imports" ALTER COLUMN "header" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "file_imports" ALTER COLUMN "sample_rows" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "file_imports" ALTER COLUMN "proposals" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "file_row_outcomes" ALTER COLUMN "item_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "file_row_outcomes" ALTER COLUMN "given_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "file_row_outcomes" ALTER COLUMN "value" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "file_row_outcomes" ADD CONSTRAINT "file_row_outcomes_import_id_row_item_id_pk" PRIMARY KEY("import_id","row","item_id");--> statement-breakpoint
ALTER TABLE "file_pieces" ALTER COLUMN "bytes" SET STORAGE EXTERNAL;--> statement-breakpoint
DROP VIEW "computed_percents";--> statement-breakpoint
CREATE VIEW "file_percents" AS
SELECT c."item_id", c."period_id", c."enrollment_id", c."percent", c."import_id", c."import_row"
FROM "computed_grades" c JOIN "file_imports" f ON f."id" = c."import_id" AND f."status" = 'accepted'
WHERE NOT EXISTS (SELECT 1 FROM "computed_grades" o JOIN "file_imports" l ON l."id" = o."import_id" AND l."status" = 'accepted'
  WHERE o."enrollment_id" = c."enrollment_id" AND o."item_id" = c."item_id" AND o."period_id" = c."period_id"
    AND (l."accepted_at", l."id") > (f."accepted_at", f."id"));--> statement-breakpoint
CREATE VIEW "computed_percents" AS
SELECT "item_id", "period_id", "enrollment_id", "percent", "import_id", "import_row" FROM "file_percents"
UNION ALL
SELECT i."id", k."period_id", k."enrollment_id", k."percent", NULL, NULL
FROM "calculated_grades" k
JOIN "periods" p ON p."id" = k."period_id"
JOIN "report_items" i ON i."school_id" = p."school_id" AND i."period_kind" = p."kind" AND i."source" = 'gradeBook' AND i."kind" NOT IN ('exam', 'conduct')
WHERE k."percent" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "computed_grades" c JOIN "file_imports" f ON f."id" = c."import_id" AND f."status" = 'accepted'
  WHERE c."enrollment_id" = k."enrollment_id" AND c."period_id" = k."period_id" AND c."item_id" = i."id");--> statement-breakpoint
DROP TABLE "file_rows" CASCADE;--> statement-breakpoint
ALTER TABLE "file_imports" DROP COLUMN "item_id";--> statement-breakpoint
ALTER TABLE "file_imports" DROP COLUMN "grade_column";--> statement-breakpoint
ALTER TABLE "file_row_outcomes" DROP COLUMN "before_import_id";--> statement-breakpoint
ALTER TABLE "file_row_outcomes" DROP COLUMN "before_import_row";
