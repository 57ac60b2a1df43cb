CREATE TABLE "mark_use_test" (
	"id" uuid PRIMARY KEY NOT NULL,
	"cutter_id" uuid NOT NULL,
	"calibration_id" uuid NOT NULL,
	"mark_use" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "calibration" ADD COLUMN "marks_in_across_mm" double precision;--> statement-breakpoint
ALTER TABLE "calibration" ADD COLUMN "marks_in_along_mm" double precision;--> statement-breakpoint
ALTER TABLE "mark_use_test" ADD CONSTRAINT "mark_use_test_cutter_id_cutter_id_fk" FOREIGN KEY ("cutter_id") REFERENCES "cutter"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_use_test" ADD CONSTRAINT "mark_use_test_calibration_id_calibration_id_fk" FOREIGN KEY ("calibration_id") REFERENCES "calibration"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_use_test" ADD CONSTRAINT "mark_use_test_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calibration" ADD CONSTRAINT "calibration_marks_in" CHECK (("calibration"."marks_in_across_mm" is null) = ("calibration"."marks_in_along_mm" is null));--> statement-breakpoint
ALTER TABLE "calibration" ADD CONSTRAINT "calibration_marks_in_size" CHECK (coalesce("marks_in_across_mm", 0) BETWEEN 0 AND 5 AND coalesce("marks_in_along_mm", 0) BETWEEN 0 AND 5);
--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON mark_use_test FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER append_only_all BEFORE TRUNCATE ON mark_use_test FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
