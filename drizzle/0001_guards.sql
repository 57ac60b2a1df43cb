-- Every measured number is finite and of a sane size: refuses NaN and infinities, which double precision would take.
DO $$
DECLARE found record;
BEGIN
  FOR found IN
    SELECT table_name, column_name FROM information_schema.columns
    WHERE table_schema = current_schema() AND data_type = 'double precision'
  LOOP
    EXECUTE format('ALTER TABLE %I ADD CONSTRAINT %I CHECK (%I BETWEEN -1e6 AND 1e6)',
      found.table_name, found.table_name || '_' || found.column_name || '_finite', found.column_name);
  END LOOP;
END $$;
--> statement-breakpoint
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'table % is append-only', TG_TABLE_NAME USING ERRCODE = 'RP001';
END $$;
--> statement-breakpoint
DO $$
DECLARE name text;
BEGIN
  FOREACH name IN ARRAY ARRAY['setting_value', 'sheet_definition', 'sheet_spot', 'sheet_figure', 'print_check', 'cut_set', 'reading',
    'fit', 'fit_reading', 'correction', 'correction_setting', 'correction_typed', 'confirmation', 'event', 'mark_attempt', 'history_entry']
  LOOP
    EXECUTE format('CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()', name);
    EXECUTE format('CREATE TRIGGER append_only_all BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()', name);
  END LOOP;
END $$;
--> statement-breakpoint
CREATE VIEW current_reading AS
  SELECT r.* FROM reading r WHERE NOT EXISTS (SELECT 1 FROM reading later WHERE later.supersedes_id = r.id);
--> statement-breakpoint
ALTER TABLE setting_value ADD CONSTRAINT setting_value_correction FOREIGN KEY (correction_id) REFERENCES correction(id);
--> statement-breakpoint
ALTER TABLE cut_set ADD CONSTRAINT cut_set_correction_id FOREIGN KEY (correction_id) REFERENCES correction(id);
--> statement-breakpoint
ALTER TABLE correction ADD CONSTRAINT correction_put_back FOREIGN KEY (put_back_of_id) REFERENCES correction(id);
--> statement-breakpoint
ALTER TABLE event ADD CONSTRAINT event_undoes FOREIGN KEY (undoes_id) REFERENCES event(id);
--> statement-breakpoint
CREATE FUNCTION require_pass() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NEW.kind = 'saved' AND NOT EXISTS (SELECT 1 FROM confirmation c WHERE c.id = NEW.confirmation_id AND c.verdict = 'pass') THEN
    RAISE EXCEPTION 'a saved entry needs a confirmation that passed' USING ERRCODE = 'RP002';
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER saved_needs_pass BEFORE INSERT ON history_entry FOR EACH ROW EXECUTE FUNCTION require_pass();
