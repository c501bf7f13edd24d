DROP VIEW "computed_percents";--> statement-breakpoint
ALTER TABLE "scale_placements" DROP CONSTRAINT "scale_placements_place";--> statement-breakpoint
ALTER TABLE "calculated_grades" ALTER COLUMN "percent" SET DATA TYPE numeric(30, 10);--> statement-breakpoint
ALTER TABLE "scale_placements" ALTER COLUMN "scale_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "calculated_grades" ADD COLUMN "level" numeric(30, 10);--> statement-breakpoint
ALTER TABLE "calculated_grades" ADD COLUMN "by_category" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "stale_books" ADD COLUMN "problem" text;--> statement-breakpoint
ALTER TABLE "report_items" ADD COLUMN "category_id" integer;--> statement-breakpoint
ALTER TABLE "scale_placements" ADD COLUMN "from_period_id" integer;--> statement-breakpoint
ALTER TABLE "scales" ADD COLUMN "highest_level" numeric(5, 2);--> statement-breakpoint
ALTER TABLE "transcript_entries" ADD COLUMN "most_credits" numeric(6, 4);--> statement-breakpoint
ALTER TABLE "report_items" ADD CONSTRAINT "report_items_category_id_categories_id_fk" FOREIGN KEY ("category_id") REFERENCES "public"."categories"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "scale_placements" ADD CONSTRAINT "scale_placements_from_period_id_periods_id_fk" FOREIGN KEY ("from_period_id") REFERENCES "public"."periods"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "scale_placements" ADD CONSTRAINT "scale_placements_place" UNIQUE NULLS NOT DISTINCT("kind","school_id","department","level","course_id","section_id","from_period_id");--> statement-breakpoint
-- Cut-offs of level scales are levels: what stood there as a percent of the highest level becomes one.
UPDATE "scales" SET "highest_level" = 4 WHERE "kind" = 'level';--> statement-breakpoint
UPDATE "bands" b SET "lowest" = round(b."lowest" / 25, 2) FROM "scale_versions" v JOIN "scales" s ON s."id" = v."scale_id"
WHERE v."id" = b."version_id" AND s."kind" = 'level' AND b."lowest" IS NOT NULL;--> statement-breakpoint
UPDATE "grades" g SET "percent" = round(g."percent" / 25, 2) FROM "scale_versions" v JOIN "scales" s ON s."id" = v."scale_id"
WHERE v."id" = g."scale_version_id" AND s."kind" = 'level' AND g."percent" IS NOT NULL;--> statement-breakpoint
-- What is computed for an item: a file's value, else what the grade book comes to, whole or in the item's own category.
CREATE VIEW "computed_percents" AS
SELECT "item_id", "period_id", "enrollment_id", "percent", "percent" AS "level", "import_id", "import_row" FROM "file_percents"
UNION ALL
SELECT i."id", k."period_id", k."enrollment_id", v."percent", v."level", NULL, NULL
FROM "calculated_grades" k
JOIN "periods" p ON p."id" = k."period_id"
JOIN "report_items" i ON i."school_id" = p."school_id" AND i."period_kind" = p."kind" AND i."source" = 'gradeBook'
  AND (i."category_id" IS NOT NULL OR i."kind" NOT IN ('exam', 'conduct'))
CROSS JOIN LATERAL (SELECT
  CASE WHEN i."category_id" IS NULL THEN k."percent" ELSE (k."by_category" -> i."category_id"::text ->> 'percent')::numeric END AS "percent",
  CASE WHEN i."category_id" IS NULL THEN k."level" ELSE (k."by_category" -> i."category_id"::text ->> 'level')::numeric END AS "level") v
WHERE v."percent" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "computed_grades" c JOIN "file_imports" f ON f."id" = c."import_id" AND f."status" = 'accepted'
  WHERE c."enrollment_id" = k."enrollment_id" AND c."period_id" = k."period_id" AND c."item_id" = i."id");--> statement-breakpoint
-- What a grade book comes to rests on scores, assignments, enrollments, the section's days, the course's department, the
-- period's days and the policy. Whoever changes one of them, in whatever way, makes the books stale in the same transaction.
-- A sealed period is left alone.
CREATE FUNCTION "make_books_stale"("sections" int[], "only_period" int) RETURNS void LANGUAGE sql AS $$
  INSERT INTO stale_books (section_id, period_id)
  SELECT DISTINCT a.section_id, a.period_id FROM assignments a
  WHERE a.section_id = ANY(sections) AND (only_period IS NULL OR a.period_id = only_period)
    AND NOT EXISTS (SELECT FROM seals WHERE seals.period_id = a.period_id)
  ORDER BY 1, 2
  ON CONFLICT (section_id, period_id) DO UPDATE SET mark = nextval(pg_get_serial_sequence('stale_books', 'mark')), problem = NULL;
$$;--> statement-breakpoint
CREATE FUNCTION "stale_after_scores"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO stale_books (section_id, period_id)
  SELECT DISTINCT a.section_id, a.period_id FROM changed c JOIN assignments a ON a.id = c.assignment_id
  WHERE NOT EXISTS (SELECT FROM seals WHERE seals.period_id = a.period_id)
  ORDER BY 1, 2
  ON CONFLICT (section_id, period_id) DO UPDATE SET mark = nextval(pg_get_serial_sequence('stale_books', 'mark')), problem = NULL;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "scores_added" AFTER INSERT ON "scores" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_scores"();--> statement-breakpoint
CREATE TRIGGER "scores_changed" AFTER UPDATE ON "scores" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_scores"();--> statement-breakpoint
CREATE TRIGGER "scores_removed" AFTER DELETE ON "scores" REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_scores"();--> statement-breakpoint
CREATE FUNCTION "stale_after_assignments"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO stale_books (section_id, period_id)
  SELECT DISTINCT c.section_id, c.period_id FROM changed c
  WHERE NOT EXISTS (SELECT FROM seals WHERE seals.period_id = c.period_id)
  ORDER BY 1, 2
  ON CONFLICT (section_id, period_id) DO UPDATE SET mark = nextval(pg_get_serial_sequence('stale_books', 'mark')), problem = NULL;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "assignments_added" AFTER INSERT ON "assignments" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_assignments"();--> statement-breakpoint
CREATE TRIGGER "assignments_changed" AFTER UPDATE ON "assignments" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_assignments"();--> statement-breakpoint
CREATE TRIGGER "assignments_moved" AFTER UPDATE ON "assignments" REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_assignments"();--> statement-breakpoint
CREATE TRIGGER "assignments_removed" AFTER DELETE ON "assignments" REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_assignments"();--> statement-breakpoint
CREATE FUNCTION "stale_after_enrollments"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM make_books_stale(ARRAY(SELECT DISTINCT section_id FROM changed), NULL);
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "enrollments_added" AFTER INSERT ON "enrollments" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_enrollments"();--> statement-breakpoint
CREATE TRIGGER "enrollments_changed" AFTER UPDATE ON "enrollments" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_enrollments"();--> statement-breakpoint
CREATE TRIGGER "enrollments_moved" AFTER UPDATE ON "enrollments" REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_enrollments"();--> statement-breakpoint
CREATE FUNCTION "stale_after_sections"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM make_books_stale(ARRAY(SELECT n.id FROM came n JOIN gone o ON o.id = n.id
    WHERE (o.course_id, o.period_id, o.starts_on, o.ends_on) IS DISTINCT FROM (n.course_id, n.period_id, n.starts_on, n.ends_on)), NULL);
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "sections_changed" AFTER UPDATE ON "sections" REFERENCING OLD TABLE AS gone NEW TABLE AS came FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_sections"();--> statement-breakpoint
CREATE FUNCTION "stale_after_courses"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM make_books_stale(ARRAY(SELECT s.id FROM came n JOIN gone o ON o.id = n.id JOIN sections s ON s.course_id = n.id
    WHERE (o.department, o.school_id) IS DISTINCT FROM (n.department, n.school_id)), NULL);
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "courses_changed" AFTER UPDATE ON "courses" REFERENCING OLD TABLE AS gone NEW TABLE AS came FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_courses"();--> statement-breakpoint
CREATE FUNCTION "stale_after_periods"() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE moved int;
BEGIN
  FOR moved IN SELECT n.id FROM came n JOIN gone o ON o.id = n.id
    WHERE (o.starts_on, o.ends_on) IS DISTINCT FROM (n.starts_on, n.ends_on) ORDER BY n.id
  LOOP
    PERFORM make_books_stale(ARRAY(SELECT id FROM sections WHERE period_id = moved), NULL);
    PERFORM make_books_stale(ARRAY(SELECT DISTINCT section_id FROM assignments WHERE period_id = moved), moved);
  END LOOP;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "periods_changed" AFTER UPDATE ON "periods" REFERENCING OLD TABLE AS gone NEW TABLE AS came FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_periods"();--> statement-breakpoint
CREATE FUNCTION "stale_after_policies"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO stale_books (section_id, period_id)
  SELECT DISTINCT a.section_id, a.period_id FROM changed p
  JOIN courses c ON c.school_id = p.school_id AND (p.department IS NULL OR p.department = c.department)
  JOIN sections s ON s.course_id = c.id AND (p.section_id IS NULL OR p.section_id = s.id)
  JOIN assignments a ON a.section_id = s.id AND (p.period_id IS NULL OR p.period_id = a.period_id)
  WHERE NOT EXISTS (SELECT FROM seals WHERE seals.period_id = a.period_id)
  ORDER BY 1, 2
  ON CONFLICT (section_id, period_id) DO UPDATE SET mark = nextval(pg_get_serial_sequence('stale_books', 'mark')), problem = NULL;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "policies_added" AFTER INSERT ON "calculation_policies" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_policies"();--> statement-breakpoint
CREATE TRIGGER "policies_changed" AFTER UPDATE ON "calculation_policies" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_policies"();--> statement-breakpoint
CREATE TRIGGER "policies_moved" AFTER UPDATE ON "calculation_policies" REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_policies"();--> statement-breakpoint
CREATE TRIGGER "policies_removed" AFTER DELETE ON "calculation_policies" REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION "stale_after_policies"();--> statement-breakpoint
-- What was kept before categories were kept by themselves is calculated once more.
INSERT INTO stale_books (section_id, period_id)
SELECT DISTINCT a.section_id, a.period_id FROM assignments a WHERE NOT EXISTS (SELECT FROM seals WHERE seals.period_id = a.period_id)
ON CONFLICT (section_id, period_id) DO NOTHING;
