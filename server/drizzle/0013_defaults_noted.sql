-- What a course inherits is part of the set-up as well.
CREATE TRIGGER note_set_up_change AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON "course_defaults"
  FOR EACH STATEMENT EXECUTE FUNCTION note_set_up_change();
