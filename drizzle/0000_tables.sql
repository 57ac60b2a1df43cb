CREATE TABLE "calibration" (
	"id" uuid PRIMARY KEY NOT NULL,
	"setup_id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"sheet_definition_id" uuid NOT NULL,
	"route" text NOT NULL,
	"kind" text NOT NULL,
	"step" text NOT NULL,
	"state" text NOT NULL,
	"tolerance_mm" double precision NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"started_by" uuid NOT NULL,
	"ended_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "calibration_tolerance" CHECK ("calibration"."tolerance_mm" > 0),
	CONSTRAINT "calibration_state" CHECK (("calibration"."state" = 'open') = ("calibration"."ended_at" is null))
);
--> statement-breakpoint
CREATE TABLE "calibration_sheet" (
	"id" uuid PRIMARY KEY NOT NULL,
	"calibration_id" uuid NOT NULL,
	"sheet_definition_id" uuid NOT NULL,
	"sheet_no" integer NOT NULL,
	CONSTRAINT "calibration_sheet_no" UNIQUE("calibration_id","sheet_no")
);
--> statement-breakpoint
CREATE TABLE "cut_set" (
	"id" uuid PRIMARY KEY NOT NULL,
	"calibration_sheet_id" uuid NOT NULL,
	"set_no" integer NOT NULL,
	"attempt_no" integer NOT NULL,
	"load_no" integer NOT NULL,
	"turn_deg" integer NOT NULL,
	"face" text NOT NULL,
	"purpose" text NOT NULL,
	"correction_id" uuid,
	"file_shift_x_mm" double precision NOT NULL,
	"file_shift_y_mm" double precision NOT NULL,
	"file_correction" double precision[],
	"left_out" text[] NOT NULL,
	"settings_snapshot" jsonb NOT NULL,
	"outcome" text NOT NULL,
	"cut_at" timestamp with time zone NOT NULL,
	"cut_by" uuid NOT NULL,
	CONSTRAINT "cut_set_attempt" UNIQUE("calibration_sheet_id","set_no","attempt_no"),
	CONSTRAINT "cut_set_turn" CHECK ("cut_set"."turn_deg" in (0, 90, 180, 270)),
	CONSTRAINT "cut_set_set" CHECK ("cut_set"."set_no" in (1, 2)),
	CONSTRAINT "cut_set_correction" CHECK ("cut_set"."file_correction" is null or cardinality("cut_set"."file_correction") = 6)
);
--> statement-breakpoint
CREATE TABLE "fit" (
	"id" uuid PRIMARY KEY NOT NULL,
	"calibration_id" uuid NOT NULL,
	"model" text NOT NULL,
	"parameters" double precision[] NOT NULL,
	"covariance" double precision[] NOT NULL,
	"degrees_of_freedom" integer NOT NULL,
	"reduced_chi_square" double precision,
	"worst_mm" double precision NOT NULL,
	"worst_bound_mm" double precision NOT NULL,
	"core_version" integer NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "fit_covariance" CHECK (cardinality("fit"."covariance") = cardinality("fit"."parameters") * cardinality("fit"."parameters")),
	CONSTRAINT "fit_degrees" CHECK ("fit"."degrees_of_freedom" >= 0)
);
--> statement-breakpoint
CREATE TABLE "fit_reading" (
	"fit_id" uuid NOT NULL,
	"reading_id" uuid NOT NULL,
	"used" boolean NOT NULL,
	"residual_mm" double precision NOT NULL,
	CONSTRAINT "fit_reading_fit_id_reading_id_pk" PRIMARY KEY("fit_id","reading_id")
);
--> statement-breakpoint
CREATE TABLE "print_check" (
	"id" uuid PRIMARY KEY NOT NULL,
	"calibration_sheet_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"line_nominal_mm" double precision NOT NULL,
	"line_mm" double precision NOT NULL,
	"verdict" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "print_check_seq" UNIQUE("calibration_sheet_id","seq"),
	CONSTRAINT "print_check_line" CHECK ("print_check"."line_mm" > 0)
);
--> statement-breakpoint
CREATE TABLE "reading" (
	"id" uuid PRIMARY KEY NOT NULL,
	"cut_set_id" uuid NOT NULL,
	"spot_no" integer NOT NULL,
	"axis" text NOT NULL,
	"method" text NOT NULL,
	"repeat_no" integer DEFAULT 1 NOT NULL,
	"seq" integer NOT NULL,
	"supersedes_id" uuid,
	"state" text NOT NULL,
	"reading_mm" double precision,
	"displacement_mm" double precision,
	"standard_uncertainty_mm" double precision,
	"raw" jsonb NOT NULL,
	"read_at" timestamp with time zone NOT NULL,
	"read_by" uuid NOT NULL,
	CONSTRAINT "reading_slot" UNIQUE("cut_set_id","spot_no","axis","method","repeat_no","seq"),
	CONSTRAINT "reading_supersedes" UNIQUE("supersedes_id"),
	CONSTRAINT "reading_slot_id" UNIQUE("id","cut_set_id","spot_no","axis","method","repeat_no"),
	CONSTRAINT "reading_has_value" CHECK (("reading"."state" = 'read') = ("reading"."displacement_mm" is not null and "reading"."standard_uncertainty_mm" is not null and "reading"."reading_mm" is not null)),
	CONSTRAINT "reading_uncertainty" CHECK ("reading"."standard_uncertainty_mm" > 0)
);
--> statement-breakpoint
CREATE TABLE "confirmation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"correction_id" uuid NOT NULL,
	"fit_id" uuid NOT NULL,
	"lower_mm" double precision NOT NULL,
	"upper_mm" double precision NOT NULL,
	"worst_mm" double precision NOT NULL,
	"next_job_mm" double precision NOT NULL,
	"tolerance_mm" double precision NOT NULL,
	"confidence" double precision NOT NULL,
	"verdict" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "confirmation_fitId_unique" UNIQUE("fit_id"),
	CONSTRAINT "confirmation_is_pass" CHECK (("confirmation"."verdict" = 'pass') = ("confirmation"."upper_mm" <= "confirmation"."tolerance_mm")),
	CONSTRAINT "confirmation_is_fail" CHECK (("confirmation"."verdict" = 'fail') = ("confirmation"."lower_mm" > "confirmation"."tolerance_mm"))
);
--> statement-breakpoint
CREATE TABLE "correction" (
	"id" uuid PRIMARY KEY NOT NULL,
	"setup_id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"calibration_id" uuid,
	"fit_id" uuid,
	"put_back_of_id" uuid,
	"objective" text NOT NULL,
	"file_correction" double precision[],
	"predicted_leftover_mm" double precision NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "correction_origin" CHECK (num_nonnulls("correction"."fit_id", "correction"."put_back_of_id") = 1)
);
--> statement-breakpoint
CREATE TABLE "correction_setting" (
	"correction_id" uuid NOT NULL,
	"machine_setting_id" uuid NOT NULL,
	"before_value" double precision NOT NULL,
	"after_value" double precision NOT NULL,
	"to_type" double precision NOT NULL,
	"words" text NOT NULL,
	CONSTRAINT "correction_setting_correction_id_machine_setting_id_pk" PRIMARY KEY("correction_id","machine_setting_id")
);
--> statement-breakpoint
CREATE TABLE "correction_typed" (
	"correction_id" uuid NOT NULL,
	"machine_setting_id" uuid NOT NULL,
	"typed_value" double precision NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "correction_typed_correction_id_machine_setting_id_pk" PRIMARY KEY("correction_id","machine_setting_id")
);
--> statement-breakpoint
CREATE TABLE "event" (
	"id" uuid PRIMARY KEY NOT NULL,
	"setup_id" uuid,
	"printer_id" uuid,
	"cutter_id" uuid,
	"program_id" uuid,
	"kind" text NOT NULL,
	"note" text NOT NULL,
	"undoes_id" uuid,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "event_undoesId_unique" UNIQUE("undoes_id"),
	CONSTRAINT "event_target" CHECK (num_nonnulls("event"."setup_id", "event"."printer_id", "event"."cutter_id", "event"."program_id") = 1)
);
--> statement-breakpoint
CREATE TABLE "history_entry" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seq" bigint GENERATED ALWAYS AS IDENTITY (sequence name "history_entry_seq_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"setup_id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"confirmation_id" uuid,
	"correction_id" uuid,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "history_entry_seq_unique" UNIQUE("seq"),
	CONSTRAINT "history_entry_confirmation" UNIQUE("confirmation_id"),
	CONSTRAINT "history_entry_subject" CHECK (num_nonnulls("history_entry"."confirmation_id", "history_entry"."correction_id") = 1),
	CONSTRAINT "history_entry_kind" CHECK (("history_entry"."kind" = 'saved') = ("history_entry"."confirmation_id" is not null))
);
--> statement-breakpoint
CREATE TABLE "mark_attempt" (
	"id" uuid PRIMARY KEY NOT NULL,
	"calibration_id" uuid NOT NULL,
	"tried" text NOT NULL,
	"outcome" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "request_key" (
	"key" uuid PRIMARY KEY NOT NULL,
	"action" text NOT NULL,
	"result" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sheet_definition" (
	"id" uuid PRIMARY KEY NOT NULL,
	"code" text NOT NULL,
	"content" jsonb NOT NULL,
	"content_sha256" "bytea" NOT NULL,
	"generator_version" integer NOT NULL,
	CONSTRAINT "sheet_definition_code_unique" UNIQUE("code"),
	CONSTRAINT "sheet_definition_contentSha256_unique" UNIQUE("content_sha256"),
	CONSTRAINT "sheet_definition_hash" CHECK (octet_length("sheet_definition"."content_sha256") = 32)
);
--> statement-breakpoint
CREATE TABLE "sheet_figure" (
	"sheet_definition_id" uuid NOT NULL,
	"set_no" integer NOT NULL,
	"spot_no" integer NOT NULL,
	"axis" text NOT NULL,
	"kind" text NOT NULL,
	"x_mm" double precision NOT NULL,
	"y_mm" double precision NOT NULL,
	"dither_mm" double precision NOT NULL,
	CONSTRAINT "sheet_figure_sheet_definition_id_set_no_spot_no_axis_kind_pk" PRIMARY KEY("sheet_definition_id","set_no","spot_no","axis","kind"),
	CONSTRAINT "sheet_figure_set" CHECK ("sheet_figure"."set_no" in (1, 2))
);
--> statement-breakpoint
CREATE TABLE "sheet_spot" (
	"sheet_definition_id" uuid NOT NULL,
	"spot_no" integer NOT NULL,
	"x_mm" double precision NOT NULL,
	"y_mm" double precision NOT NULL,
	CONSTRAINT "sheet_spot_sheet_definition_id_spot_no_pk" PRIMARY KEY("sheet_definition_id","spot_no")
);
--> statement-breakpoint
CREATE TABLE "cutter" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"file_format" text NOT NULL,
	"file_across" text NOT NULL,
	"file_along" text NOT NULL,
	"feeds" text NOT NULL,
	CONSTRAINT "cutter_axes" CHECK (right("cutter"."file_across", 1) <> right("cutter"."file_along", 1)),
	CONSTRAINT "cutter_feeds" CHECK ("cutter"."feeds" in ('away', 'towards'))
);
--> statement-breakpoint
CREATE TABLE "machine_setting" (
	"id" uuid PRIMARY KEY NOT NULL,
	"cutter_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"display_name" text NOT NULL,
	"acts_on" text NOT NULL,
	"unit" text NOT NULL,
	"unit_size" double precision,
	"step" double precision NOT NULL,
	"min_value" double precision NOT NULL,
	"max_value" double precision NOT NULL,
	"sense" integer,
	"gain" double precision NOT NULL,
	"entry" text NOT NULL,
	"combine" text NOT NULL,
	"pivot" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "machine_setting_name" UNIQUE("cutter_id","display_name"),
	CONSTRAINT "machine_setting_step" CHECK ("machine_setting"."step" > 0),
	CONSTRAINT "machine_setting_range" CHECK ("machine_setting"."min_value" < "machine_setting"."max_value"),
	CONSTRAINT "machine_setting_sense" CHECK ("machine_setting"."sense" in (-1, 1)),
	CONSTRAINT "machine_setting_unit" CHECK (("machine_setting"."unit" = 'step') = ("machine_setting"."unit_size" is not null))
);
--> statement-breakpoint
CREATE TABLE "material" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"finish" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"unit_system" text NOT NULL,
	"archived_at" timestamp with time zone,
	CONSTRAINT "person_unit_system" CHECK ("person"."unit_system" in ('mm', 'in-decimal', 'in-fraction'))
);
--> statement-breakpoint
CREATE TABLE "print_mode" (
	"id" uuid PRIMARY KEY NOT NULL,
	"printer_id" uuid NOT NULL,
	"name" text NOT NULL,
	"page" text NOT NULL,
	CONSTRAINT "print_mode_name" UNIQUE("printer_id","name")
);
--> statement-breakpoint
CREATE TABLE "printer" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"dot_pitch_mm" double precision NOT NULL,
	CONSTRAINT "printer_dot" CHECK ("printer"."dot_pitch_mm" > 0)
);
--> statement-breakpoint
CREATE TABLE "program" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"opens" text[] NOT NULL,
	"marks_placed_by" text NOT NULL,
	"knows_cut_by" text NOT NULL,
	"import_scale" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "setting_value" (
	"id" uuid PRIMARY KEY NOT NULL,
	"machine_setting_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"value" double precision NOT NULL,
	"source" text NOT NULL,
	"correction_id" uuid,
	"set_at" timestamp with time zone NOT NULL,
	"set_by" uuid NOT NULL,
	CONSTRAINT "setting_value_seq" UNIQUE("machine_setting_id","seq")
);
--> statement-breakpoint
CREATE TABLE "setup" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"printer_id" uuid NOT NULL,
	"print_mode_id" uuid NOT NULL,
	"program_id" uuid,
	"cutter_id" uuid NOT NULL,
	"tool" text NOT NULL,
	"carrier" text NOT NULL,
	"route" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"work_width_mm" double precision,
	"work_length_mm" double precision,
	"tolerance_mm" double precision NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "setup_tolerance" CHECK ("setup"."tolerance_mm" > 0),
	CONSTRAINT "setup_area" CHECK (("setup"."work_width_mm" is null) = ("setup"."work_length_mm" is null) and coalesce("setup"."work_width_mm", 1) > 0 and coalesce("setup"."work_length_mm", 1) > 0),
	CONSTRAINT "setup_route" CHECK ("setup"."route" in ('A', 'D'))
);
--> statement-breakpoint
CREATE TABLE "shop_setting" (
	"only" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"name" text NOT NULL,
	"is_demo" boolean NOT NULL,
	"default_tolerance_mm" double precision NOT NULL,
	CONSTRAINT "shop_setting_only" CHECK ("shop_setting"."only"),
	CONSTRAINT "shop_setting_tolerance" CHECK ("shop_setting"."default_tolerance_mm" > 0)
);
--> statement-breakpoint
CREATE TABLE "simulated_setup" (
	"setup_id" uuid PRIMARY KEY NOT NULL,
	"truth" jsonb NOT NULL,
	"seed" integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE "calibration" ADD CONSTRAINT "calibration_setup_id_setup_id_fk" FOREIGN KEY ("setup_id") REFERENCES "setup"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calibration" ADD CONSTRAINT "calibration_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calibration" ADD CONSTRAINT "calibration_sheet_definition_id_sheet_definition_id_fk" FOREIGN KEY ("sheet_definition_id") REFERENCES "sheet_definition"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calibration" ADD CONSTRAINT "calibration_started_by_person_id_fk" FOREIGN KEY ("started_by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calibration_sheet" ADD CONSTRAINT "calibration_sheet_calibration_id_calibration_id_fk" FOREIGN KEY ("calibration_id") REFERENCES "calibration"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calibration_sheet" ADD CONSTRAINT "calibration_sheet_sheet_definition_id_sheet_definition_id_fk" FOREIGN KEY ("sheet_definition_id") REFERENCES "sheet_definition"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cut_set" ADD CONSTRAINT "cut_set_calibration_sheet_id_calibration_sheet_id_fk" FOREIGN KEY ("calibration_sheet_id") REFERENCES "calibration_sheet"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cut_set" ADD CONSTRAINT "cut_set_cut_by_person_id_fk" FOREIGN KEY ("cut_by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fit" ADD CONSTRAINT "fit_calibration_id_calibration_id_fk" FOREIGN KEY ("calibration_id") REFERENCES "calibration"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fit_reading" ADD CONSTRAINT "fit_reading_fit_id_fit_id_fk" FOREIGN KEY ("fit_id") REFERENCES "fit"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fit_reading" ADD CONSTRAINT "fit_reading_reading_id_reading_id_fk" FOREIGN KEY ("reading_id") REFERENCES "reading"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "print_check" ADD CONSTRAINT "print_check_calibration_sheet_id_calibration_sheet_id_fk" FOREIGN KEY ("calibration_sheet_id") REFERENCES "calibration_sheet"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "print_check" ADD CONSTRAINT "print_check_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_cut_set_id_cut_set_id_fk" FOREIGN KEY ("cut_set_id") REFERENCES "cut_set"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_read_by_person_id_fk" FOREIGN KEY ("read_by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_supersedes_own_slot" FOREIGN KEY ("supersedes_id","cut_set_id","spot_no","axis","method","repeat_no") REFERENCES "reading"("id","cut_set_id","spot_no","axis","method","repeat_no") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "confirmation" ADD CONSTRAINT "confirmation_correction_id_correction_id_fk" FOREIGN KEY ("correction_id") REFERENCES "correction"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "confirmation" ADD CONSTRAINT "confirmation_fit_id_fit_id_fk" FOREIGN KEY ("fit_id") REFERENCES "fit"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "confirmation" ADD CONSTRAINT "confirmation_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "correction" ADD CONSTRAINT "correction_setup_id_setup_id_fk" FOREIGN KEY ("setup_id") REFERENCES "setup"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "correction" ADD CONSTRAINT "correction_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "correction" ADD CONSTRAINT "correction_calibration_id_calibration_id_fk" FOREIGN KEY ("calibration_id") REFERENCES "calibration"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "correction" ADD CONSTRAINT "correction_fit_id_fit_id_fk" FOREIGN KEY ("fit_id") REFERENCES "fit"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "correction" ADD CONSTRAINT "correction_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "correction_setting" ADD CONSTRAINT "correction_setting_correction_id_correction_id_fk" FOREIGN KEY ("correction_id") REFERENCES "correction"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "correction_setting" ADD CONSTRAINT "correction_setting_machine_setting_id_machine_setting_id_fk" FOREIGN KEY ("machine_setting_id") REFERENCES "machine_setting"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "correction_typed" ADD CONSTRAINT "correction_typed_correction_id_correction_id_fk" FOREIGN KEY ("correction_id") REFERENCES "correction"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "correction_typed" ADD CONSTRAINT "correction_typed_machine_setting_id_machine_setting_id_fk" FOREIGN KEY ("machine_setting_id") REFERENCES "machine_setting"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "correction_typed" ADD CONSTRAINT "correction_typed_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "event" ADD CONSTRAINT "event_setup_id_setup_id_fk" FOREIGN KEY ("setup_id") REFERENCES "setup"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "event" ADD CONSTRAINT "event_printer_id_printer_id_fk" FOREIGN KEY ("printer_id") REFERENCES "printer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "event" ADD CONSTRAINT "event_cutter_id_cutter_id_fk" FOREIGN KEY ("cutter_id") REFERENCES "cutter"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "event" ADD CONSTRAINT "event_program_id_program_id_fk" FOREIGN KEY ("program_id") REFERENCES "program"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "event" ADD CONSTRAINT "event_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "history_entry" ADD CONSTRAINT "history_entry_setup_id_setup_id_fk" FOREIGN KEY ("setup_id") REFERENCES "setup"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "history_entry" ADD CONSTRAINT "history_entry_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "history_entry" ADD CONSTRAINT "history_entry_confirmation_id_confirmation_id_fk" FOREIGN KEY ("confirmation_id") REFERENCES "confirmation"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "history_entry" ADD CONSTRAINT "history_entry_correction_id_correction_id_fk" FOREIGN KEY ("correction_id") REFERENCES "correction"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "history_entry" ADD CONSTRAINT "history_entry_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_attempt" ADD CONSTRAINT "mark_attempt_calibration_id_calibration_id_fk" FOREIGN KEY ("calibration_id") REFERENCES "calibration"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_attempt" ADD CONSTRAINT "mark_attempt_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheet_figure" ADD CONSTRAINT "sheet_figure_sheet_definition_id_sheet_definition_id_fk" FOREIGN KEY ("sheet_definition_id") REFERENCES "sheet_definition"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheet_spot" ADD CONSTRAINT "sheet_spot_sheet_definition_id_sheet_definition_id_fk" FOREIGN KEY ("sheet_definition_id") REFERENCES "sheet_definition"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machine_setting" ADD CONSTRAINT "machine_setting_cutter_id_cutter_id_fk" FOREIGN KEY ("cutter_id") REFERENCES "cutter"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "print_mode" ADD CONSTRAINT "print_mode_printer_id_printer_id_fk" FOREIGN KEY ("printer_id") REFERENCES "printer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setting_value" ADD CONSTRAINT "setting_value_machine_setting_id_machine_setting_id_fk" FOREIGN KEY ("machine_setting_id") REFERENCES "machine_setting"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setting_value" ADD CONSTRAINT "setting_value_set_by_person_id_fk" FOREIGN KEY ("set_by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setup" ADD CONSTRAINT "setup_printer_id_printer_id_fk" FOREIGN KEY ("printer_id") REFERENCES "printer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setup" ADD CONSTRAINT "setup_print_mode_id_print_mode_id_fk" FOREIGN KEY ("print_mode_id") REFERENCES "print_mode"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setup" ADD CONSTRAINT "setup_program_id_program_id_fk" FOREIGN KEY ("program_id") REFERENCES "program"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setup" ADD CONSTRAINT "setup_cutter_id_cutter_id_fk" FOREIGN KEY ("cutter_id") REFERENCES "cutter"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "simulated_setup" ADD CONSTRAINT "simulated_setup_setup_id_setup_id_fk" FOREIGN KEY ("setup_id") REFERENCES "setup"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "calibration_setup" ON "calibration" USING btree ("setup_id","started_at");--> statement-breakpoint
CREATE UNIQUE INDEX "cut_set_done" ON "cut_set" USING btree ("calibration_sheet_id","set_no") WHERE "cut_set"."outcome" = 'done';--> statement-breakpoint
CREATE INDEX "fit_calibration" ON "fit" USING btree ("calibration_id");--> statement-breakpoint
CREATE INDEX "reading_cut_set" ON "reading" USING btree ("cut_set_id");--> statement-breakpoint
CREATE UNIQUE INDEX "confirmation_pass" ON "confirmation" USING btree ("correction_id") WHERE "confirmation"."verdict" = 'pass';--> statement-breakpoint
CREATE INDEX "correction_setup" ON "correction" USING btree ("setup_id","at");--> statement-breakpoint
CREATE INDEX "event_setup" ON "event" USING btree ("setup_id","at");--> statement-breakpoint
CREATE INDEX "event_cutter" ON "event" USING btree ("cutter_id","at");--> statement-breakpoint
CREATE INDEX "history_entry_setup" ON "history_entry" USING btree ("setup_id","seq");--> statement-breakpoint
CREATE UNIQUE INDEX "cutter_name" ON "cutter" USING btree (lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "material_name" ON "material" USING btree (lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "person_name" ON "person" USING btree (lower("name")) WHERE "person"."archived_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "printer_name" ON "printer" USING btree (lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "program_name" ON "program" USING btree (lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "setup_name" ON "setup" USING btree (lower("name"));