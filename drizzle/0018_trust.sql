CREATE TABLE "daily_check" (
	"id" uuid PRIMARY KEY NOT NULL,
	"setup_id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"side" text NOT NULL,
	"left_mm" double precision NOT NULL,
	"right_mm" double precision NOT NULL,
	"top_mm" double precision NOT NULL,
	"bottom_mm" double precision NOT NULL,
	"border_sd_mm" double precision NOT NULL,
	"across_mm" double precision NOT NULL,
	"along_mm" double precision NOT NULL,
	"standard_uncertainty_mm" double precision NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "daily_check_borders" CHECK (least("daily_check"."left_mm", "daily_check"."right_mm", "daily_check"."top_mm", "daily_check"."bottom_mm") >= 0),
	CONSTRAINT "daily_check_uncertainty" CHECK ("daily_check"."standard_uncertainty_mm" > 0)
);
--> statement-breakpoint
CREATE TABLE "daily_check_taken_back" (
	"daily_check_id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "policy" (
	"id" uuid PRIMARY KEY NOT NULL,
	"setup_id" uuid NOT NULL,
	"material_id" uuid,
	"kind" text NOT NULL,
	"every_days" integer NOT NULL,
	"every_jobs" integer NOT NULL,
	"costly_from" double precision NOT NULL,
	"spoil_cost" double precision NOT NULL,
	"check_cost" double precision NOT NULL,
	"jobs_ahead" integer NOT NULL,
	"school" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "policy_of" UNIQUE NULLS NOT DISTINCT("setup_id","material_id"),
	CONSTRAINT "policy_figures" CHECK ("policy"."every_days" > 0 and "policy"."every_jobs" > 0 and "policy"."jobs_ahead" > 0),
	CONSTRAINT "policy_costs" CHECK ("policy"."costly_from" >= 0 and "policy"."spoil_cost" >= 0 and "policy"."check_cost" >= 0)
);
--> statement-breakpoint
ALTER TABLE "daily_check" ADD CONSTRAINT "daily_check_setup_id_setup_id_fk" FOREIGN KEY ("setup_id") REFERENCES "setup"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "daily_check" ADD CONSTRAINT "daily_check_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "daily_check" ADD CONSTRAINT "daily_check_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "daily_check_taken_back" ADD CONSTRAINT "daily_check_taken_back_daily_check_id_daily_check_id_fk" FOREIGN KEY ("daily_check_id") REFERENCES "daily_check"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "daily_check_taken_back" ADD CONSTRAINT "daily_check_taken_back_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "policy" ADD CONSTRAINT "policy_setup_id_setup_id_fk" FOREIGN KEY ("setup_id") REFERENCES "setup"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "policy" ADD CONSTRAINT "policy_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "daily_check_setup" ON "daily_check" USING btree ("setup_id","material_id","at");--> statement-breakpoint
DO $$
DECLARE guarded text;
BEGIN
  FOREACH guarded IN ARRAY ARRAY['daily_check', 'daily_check_taken_back']
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
    WHERE table_schema = current_schema() AND data_type = 'double precision' AND table_name IN ('daily_check', 'policy')
  LOOP
    EXECUTE format('ALTER TABLE %I ADD CONSTRAINT %I CHECK (%I BETWEEN -1e6 AND 1e6)',
      found.table_name, found.table_name || '_' || found.column_name || '_finite', found.column_name);
  END LOOP;
END $$;
