-- Every measured number is finite and of a sane size, as for the first tables.
DO $$
DECLARE found record;
BEGIN
  FOR found IN
    SELECT table_name, column_name FROM information_schema.columns c
    WHERE table_schema = current_schema() AND data_type = 'double precision'
      AND table_name IN (SELECT t.table_name FROM information_schema.tables t WHERE t.table_schema = current_schema() AND t.table_type = 'BASE TABLE')
      AND NOT EXISTS (SELECT 1 FROM information_schema.check_constraints k WHERE k.constraint_name = c.table_name || '_' || c.column_name || '_finite')
  LOOP
    EXECUTE format('ALTER TABLE %I ADD CONSTRAINT %I CHECK (%I BETWEEN -1e6 AND 1e6)',
      found.table_name, found.table_name || '_' || found.column_name || '_finite', found.column_name);
  END LOOP;
END $$;
--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON which_way_test FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER append_only_all BEFORE TRUNCATE ON which_way_test FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
