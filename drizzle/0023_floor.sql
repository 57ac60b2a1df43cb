CREATE TABLE "mark_reading" (
	"id" uuid PRIMARY KEY NOT NULL,
	"setup_id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"calibration_id" uuid,
	"job_id" uuid,
	"finish" text NOT NULL,
	"carrier" text NOT NULL,
	"light" text NOT NULL,
	"inset_mm" double precision,
	"was_read" boolean NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "mark_reading_of" CHECK (num_nonnulls("mark_reading"."calibration_id", "mark_reading"."job_id") = 1)
);
--> statement-breakpoint
CREATE TABLE "test_cut" (
	"id" uuid PRIMARY KEY NOT NULL,
	"cutter_id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"stack" text NOT NULL,
	"force" double precision,
	"force_unit" text NOT NULL,
	"depth" double precision,
	"speed" double precision,
	"passes" integer NOT NULL,
	"outcome" text NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "test_cut_force" CHECK (coalesce("test_cut"."force", 1) > 0 and "test_cut"."passes" between 1 and 20)
);
--> statement-breakpoint
ALTER TABLE "cut_release" ADD COLUMN "stack" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "mark_reading" ADD CONSTRAINT "mark_reading_setup_id_setup_id_fk" FOREIGN KEY ("setup_id") REFERENCES "setup"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_reading" ADD CONSTRAINT "mark_reading_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_reading" ADD CONSTRAINT "mark_reading_calibration_id_calibration_id_fk" FOREIGN KEY ("calibration_id") REFERENCES "calibration"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_reading" ADD CONSTRAINT "mark_reading_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_reading" ADD CONSTRAINT "mark_reading_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test_cut" ADD CONSTRAINT "test_cut_cutter_id_cutter_id_fk" FOREIGN KEY ("cutter_id") REFERENCES "cutter"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test_cut" ADD CONSTRAINT "test_cut_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test_cut" ADD CONSTRAINT "test_cut_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "mark_reading_setup" ON "mark_reading" USING btree ("setup_id","at");--> statement-breakpoint
CREATE INDEX "test_cut_cutter" ON "test_cut" USING btree ("cutter_id","at");--> statement-breakpoint
DO $$
DECLARE guarded text;
BEGIN
  FOREACH guarded IN ARRAY ARRAY['test_cut', 'mark_reading']
  LOOP
    EXECUTE format('CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()', guarded);
    EXECUTE format('CREATE TRIGGER append_only_all BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()', guarded);
  END LOOP;
END $$;
--> statement-breakpoint
DO $$
DECLARE found record;
BEGIN
  FOR found IN
    SELECT table_name, column_name FROM information_schema.columns
    WHERE table_schema = current_schema() AND data_type = 'double precision' AND table_name IN ('test_cut', 'mark_reading')
  LOOP
    EXECUTE format('ALTER TABLE %I ADD CONSTRAINT %I CHECK (%I BETWEEN -1e6 AND 1e6)',
      found.table_name, found.table_name || '_' || found.column_name || '_finite', found.column_name);
  END LOOP;
END $$;
--> statement-breakpoint
-- What is known already of how marks were read: cuts of check sheets that were made, and those whose marks were not found.
INSERT INTO "mark_reading" ("id", "setup_id", "material_id", "calibration_id", "finish", "carrier", "light", "inset_mm", "was_read", "at", "by")
SELECT gen_random_uuid(), c."setup_id", c."material_id", c."id", m."finish", s."carrier", 'not_told', ms."inset_mm", x."was_read", x."at", x."by"
FROM (
  SELECT sh."calibration_id", cs."outcome" = 'done' AS "was_read", cs."cut_at" AS "at", cs."cut_by" AS "by"
  FROM "cut_set" cs JOIN "calibration_sheet" sh ON sh."id" = cs."calibration_sheet_id"
  WHERE cs."outcome" IN ('done', 'marks_not_read')
  UNION ALL
  SELECT "calibration_id", "outcome" = 'read', "at", "by" FROM "mark_attempt"
) x
JOIN "calibration" c ON c."id" = x."calibration_id"
JOIN "setup" s ON s."id" = c."setup_id"
JOIN "material" m ON m."id" = c."material_id"
JOIN "cutter" k ON k."id" = s."cutter_id"
LEFT JOIN "program" p ON p."id" = s."program_id"
LEFT JOIN "mark_scheme" ms ON ms."id" = coalesce(p."mark_scheme_id", k."mark_scheme_id")
WHERE coalesce(ms."kind", 'four_corners') NOT IN ('by_hand', 'none');
