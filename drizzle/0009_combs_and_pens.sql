ALTER TABLE "calibration" ADD COLUMN "cut_line" text DEFAULT 'weeded' NOT NULL;--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "knife_from_pen_across_mm" double precision;--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "knife_from_pen_along_mm" double precision;--> statement-breakpoint
ALTER TABLE "cutter" ADD CONSTRAINT "cutter_knife" CHECK (("cutter"."knife_from_pen_across_mm" is null) = ("cutter"."knife_from_pen_along_mm" is null));