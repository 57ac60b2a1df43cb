CREATE TABLE "roll_run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"setup_id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"form" text NOT NULL,
	"width_mm" double precision NOT NULL,
	"spacing_mm" double precision NOT NULL,
	"stations" integer NOT NULL,
	"every_nth" integer NOT NULL,
	"sides" text[] NOT NULL,
	"tolerance_mm" double precision NOT NULL,
	"settings_snapshot" jsonb NOT NULL,
	"ruled_nominal_mm" double precision,
	"ruled_mm" double precision,
	"section_work" jsonb,
	"state" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"started_by" uuid NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "roll_run_sizes" CHECK ("roll_run"."width_mm" > 0 and "roll_run"."spacing_mm" > 0 and "roll_run"."tolerance_mm" > 0),
	CONSTRAINT "roll_run_stations" CHECK ("roll_run"."stations" between 1 and 100000 and "roll_run"."every_nth" >= 1),
	CONSTRAINT "roll_run_ruled" CHECK (("roll_run"."ruled_nominal_mm" is null) = ("roll_run"."ruled_mm" is null)),
	CONSTRAINT "roll_run_state" CHECK (("roll_run"."state" = 'open') = ("roll_run"."ended_at" is null))
);
--> statement-breakpoint
CREATE TABLE "station_reading" (
	"id" uuid PRIMARY KEY NOT NULL,
	"roll_run_id" uuid NOT NULL,
	"station_no" integer NOT NULL,
	"side" text NOT NULL,
	"axis" text NOT NULL,
	"seq" integer NOT NULL,
	"supersedes_id" uuid,
	"method" text NOT NULL,
	"state" text NOT NULL,
	"reading_mm" double precision,
	"displacement_mm" double precision,
	"read_at" timestamp with time zone NOT NULL,
	"read_by" uuid NOT NULL,
	CONSTRAINT "station_reading_slot" UNIQUE("roll_run_id","station_no","side","axis","seq"),
	CONSTRAINT "station_reading_supersedes" UNIQUE("supersedes_id"),
	CONSTRAINT "station_reading_slot_id" UNIQUE("id","roll_run_id","station_no","side","axis"),
	CONSTRAINT "station_reading_station" CHECK ("station_reading"."station_no" >= 1),
	CONSTRAINT "station_reading_value" CHECK (("station_reading"."state" = 'read') = ("station_reading"."reading_mm" is not null and "station_reading"."displacement_mm" is not null)),
	CONSTRAINT "station_reading_size" CHECK ("station_reading"."displacement_mm" between -1000 and 1000)
);
--> statement-breakpoint
ALTER TABLE "roll_run" ADD CONSTRAINT "roll_run_setup_id_setup_id_fk" FOREIGN KEY ("setup_id") REFERENCES "setup"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "roll_run" ADD CONSTRAINT "roll_run_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "roll_run" ADD CONSTRAINT "roll_run_started_by_person_id_fk" FOREIGN KEY ("started_by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "station_reading" ADD CONSTRAINT "station_reading_roll_run_id_roll_run_id_fk" FOREIGN KEY ("roll_run_id") REFERENCES "roll_run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "station_reading" ADD CONSTRAINT "station_reading_read_by_person_id_fk" FOREIGN KEY ("read_by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "station_reading" ADD CONSTRAINT "station_reading_supersedes_own_slot" FOREIGN KEY ("supersedes_id","roll_run_id","station_no","side","axis") REFERENCES "station_reading"("id","roll_run_id","station_no","side","axis") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "roll_run_setup" ON "roll_run" USING btree ("setup_id","started_at");--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON station_reading FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER append_only_all BEFORE TRUNCATE ON station_reading FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
DO $$
DECLARE found record;
BEGIN
  FOR found IN
    SELECT table_name, column_name FROM information_schema.columns
    WHERE table_schema = current_schema() AND data_type = 'double precision' AND table_name IN ('roll_run', 'station_reading')
  LOOP
    EXECUTE format('ALTER TABLE %I ADD CONSTRAINT %I CHECK (%I BETWEEN -1e6 AND 1e6)',
      found.table_name, found.table_name || '_' || found.column_name || '_finite', found.column_name);
  END LOOP;
END $$;
