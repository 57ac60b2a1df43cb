-- A check that is saved or cancelled is a record: it takes no more work, whatever tab or program asks.
CREATE FUNCTION guard_calibration() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'DELETE' AND removes_demo() THEN
    RETURN OLD;
  END IF;
  IF TG_OP = 'DELETE' OR TG_OP = 'TRUNCATE' THEN
    RAISE EXCEPTION 'a check is never deleted: it is cancelled' USING ERRCODE = 'restrict_violation';
  END IF;
  IF OLD.state = 'saved' THEN
    RAISE EXCEPTION 'a saved check is never changed' USING ERRCODE = 'restrict_violation';
  END IF;
  IF OLD.state = 'abandoned' AND NEW.state = 'saved' THEN
    RAISE EXCEPTION 'a cancelled check is reopened before it is saved' USING ERRCODE = 'restrict_violation';
  END IF;
  IF (NEW.setup_id, NEW.material_id, NEW.sheet_definition_id, NEW.kind, NEW.route, NEW.started_at, NEW.started_by)
    IS DISTINCT FROM (OLD.setup_id, OLD.material_id, OLD.sheet_definition_id, OLD.kind, OLD.route, OLD.started_at, OLD.started_by) THEN
    RAISE EXCEPTION 'what a check is of never changes' USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER guard_calibration BEFORE UPDATE OR DELETE ON calibration FOR EACH ROW EXECUTE FUNCTION guard_calibration();
--> statement-breakpoint
CREATE TRIGGER guard_calibration_all BEFORE TRUNCATE ON calibration FOR EACH STATEMENT EXECUTE FUNCTION guard_calibration();
--> statement-breakpoint
-- Records put in whole (an archive, made-up data of a bench) come after their end and say so for their own transaction.
CREATE FUNCTION require_open_check(check_id uuid) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  IF check_id IS NULL OR coalesce(current_setting('red_plumb.fills', true), '') = 'on' THEN
    RETURN;
  END IF;
  IF EXISTS (SELECT 1 FROM calibration WHERE id = check_id AND state <> 'open') THEN
    RAISE EXCEPTION 'this check is closed: nothing is added to it' USING ERRCODE = 'restrict_violation';
  END IF;
END $$;
--> statement-breakpoint
CREATE FUNCTION of_open_check() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM require_open_check(NEW.calibration_id);
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE FUNCTION of_open_check_sheet() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM require_open_check((SELECT calibration_id FROM calibration_sheet WHERE id = NEW.calibration_sheet_id));
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE FUNCTION of_open_check_set() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM require_open_check((SELECT s.calibration_id FROM cut_set c JOIN calibration_sheet s ON s.id = c.calibration_sheet_id
    WHERE c.id = NEW.cut_set_id));
  RETURN NEW;
END $$;
--> statement-breakpoint
DO $$
DECLARE
  guarded text;
  by_sheet CONSTANT text[] := ARRAY['print_check', 'cut_set'];
  by_set CONSTANT text[] := ARRAY['reading', 'scan'];
  kind text;
BEGIN
  FOREACH guarded IN ARRAY ARRAY['calibration_sheet', 'mark_attempt', 'fit', 'correction'] || by_sheet || by_set
  LOOP
    kind := CASE WHEN guarded = ANY (by_sheet) THEN 'of_open_check_sheet' WHEN guarded = ANY (by_set) THEN 'of_open_check_set' ELSE 'of_open_check' END;
    EXECUTE format('CREATE TRIGGER of_open_check BEFORE INSERT ON %I FOR EACH ROW EXECUTE FUNCTION %I()', guarded, kind);
  END LOOP;
END $$;
