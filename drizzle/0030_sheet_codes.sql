ALTER TABLE "calibration_sheet" ADD COLUMN "code" text;--> statement-breakpoint
-- What is printed on the sheets that are there already.
UPDATE "calibration_sheet" SET "code" = "sheet_definition"."code" FROM "sheet_definition" WHERE "sheet_definition"."id" = "calibration_sheet"."sheet_definition_id";--> statement-breakpoint
ALTER TABLE "calibration_sheet" ALTER COLUMN "code" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "calibration_sheet" ADD COLUMN "word_shift" integer;--> statement-breakpoint
ALTER TABLE "roll_run" ADD COLUMN "scale" text DEFAULT 'mm' NOT NULL;
