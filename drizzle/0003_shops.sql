CREATE TABLE "access" (
	"only" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"passphrase_hash" text NOT NULL,
	"cookie_secret" text NOT NULL,
	"is_open" boolean NOT NULL,
	CONSTRAINT "access_only" CHECK ("access"."only")
);
--> statement-breakpoint
CREATE TABLE "mark_scheme" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"size_mm" double precision NOT NULL,
	"inset_mm" double precision NOT NULL,
	"keep_out_mm" double precision NOT NULL,
	"edge_min_mm" double precision NOT NULL,
	"leading_mark" text NOT NULL,
	"reading_order" text NOT NULL,
	CONSTRAINT "mark_scheme_sizes" CHECK (least("mark_scheme"."size_mm", "mark_scheme"."inset_mm", "mark_scheme"."keep_out_mm", "mark_scheme"."edge_min_mm") >= 0)
);
--> statement-breakpoint
CREATE TABLE "shop" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"is_demo" boolean NOT NULL,
	"default_tolerance_mm" double precision NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	CONSTRAINT "shop_tolerance" CHECK ("shop"."default_tolerance_mm" > 0)
);
--> statement-breakpoint
CREATE TABLE "which_way_test" (
	"id" uuid PRIMARY KEY NOT NULL,
	"machine_setting_id" uuid NOT NULL,
	"change" double precision NOT NULL,
	"measured_across_mm" double precision NOT NULL,
	"measured_along_mm" double precision NOT NULL,
	"standard_uncertainty_mm" double precision NOT NULL,
	"sense" integer,
	"gain" double precision,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "which_way_change" CHECK ("which_way_test"."change" <> 0),
	CONSTRAINT "which_way_sense" CHECK ("which_way_test"."sense" in (-1, 1)),
	CONSTRAINT "which_way_uncertainty" CHECK ("which_way_test"."standard_uncertainty_mm" > 0)
);
--> statement-breakpoint
-- The one shop there was becomes the first of several.
INSERT INTO "shop" SELECT gen_random_uuid(), name, is_demo, default_tolerance_mm, now() FROM shop_setting;--> statement-breakpoint
ALTER TABLE "machine_setting" DROP CONSTRAINT "machine_setting_unit";--> statement-breakpoint
ALTER TABLE "setup" DROP CONSTRAINT "setup_route";--> statement-breakpoint
DROP INDEX "cutter_name";--> statement-breakpoint
DROP INDEX "material_name";--> statement-breakpoint
DROP INDEX "person_name";--> statement-breakpoint
DROP INDEX "printer_name";--> statement-breakpoint
DROP INDEX "program_name";--> statement-breakpoint
DROP INDEX "setup_name";--> statement-breakpoint
ALTER TABLE "machine_setting" ALTER COLUMN "cutter_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "shop_id" uuid;--> statement-breakpoint
UPDATE "cutter" SET "shop_id" = (SELECT id FROM shop);--> statement-breakpoint
ALTER TABLE "cutter" ALTER COLUMN "shop_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "mark_scheme_id" uuid;--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "mark_use" text DEFAULT 'unknown' NOT NULL;--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "hpgl_tool" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "hpgl_outline_first" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "spare_front_mm" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "spare_rear_mm" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "machine_setting" ADD COLUMN "program_id" uuid;--> statement-breakpoint
ALTER TABLE "machine_setting" ADD COLUMN "kind" text DEFAULT 'typed' NOT NULL;--> statement-breakpoint
ALTER TABLE "machine_setting" ADD COLUMN "scales_offset" text DEFAULT 'unknown' NOT NULL;--> statement-breakpoint
ALTER TABLE "machine_setting" ADD COLUMN "press_this" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "machine_setting" ADD COLUMN "not_that" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "shop_id" uuid;--> statement-breakpoint
UPDATE "material" SET "shop_id" = (SELECT id FROM shop);--> statement-breakpoint
ALTER TABLE "material" ALTER COLUMN "shop_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "form" text DEFAULT 'sheet' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "width_mm" double precision;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "printable_width_mm" double precision;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "thickness_mm" double precision;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "colour" text DEFAULT 'white' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "transparency" text DEFAULT 'opaque' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "carrier" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "drying_hours" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "thermal_per_k" double precision;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "thermal_source" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "humidity_per_percent" double precision;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "humidity_source" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "cost" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "shop_id" uuid;--> statement-breakpoint
UPDATE "person" SET "shop_id" = (SELECT id FROM shop);--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "shop_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "time_zone" text DEFAULT 'UTC' NOT NULL;--> statement-breakpoint
ALTER TABLE "print_mode" ADD COLUMN "tray" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "print_mode" ADD COLUMN "quality" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "print_mode" ADD COLUMN "is_borderless" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "print_mode" ADD COLUMN "page_width_mm" double precision;--> statement-breakpoint
UPDATE "print_mode" SET "page_width_mm" = CASE WHEN "page" = 'A4' THEN 210 ELSE 215.9 END;--> statement-breakpoint
ALTER TABLE "print_mode" ALTER COLUMN "page_width_mm" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "print_mode" ADD COLUMN "page_length_mm" double precision;--> statement-breakpoint
UPDATE "print_mode" SET "page_length_mm" = CASE WHEN "page" = 'A4' THEN 297 ELSE 279.4 END;--> statement-breakpoint
ALTER TABLE "print_mode" ALTER COLUMN "page_length_mm" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "printer" ADD COLUMN "shop_id" uuid;--> statement-breakpoint
UPDATE "printer" SET "shop_id" = (SELECT id FROM shop);--> statement-breakpoint
ALTER TABLE "printer" ALTER COLUMN "shop_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "printer" ADD COLUMN "margin_left_mm" double precision DEFAULT 5 NOT NULL;--> statement-breakpoint
ALTER TABLE "printer" ADD COLUMN "margin_right_mm" double precision DEFAULT 5 NOT NULL;--> statement-breakpoint
ALTER TABLE "printer" ADD COLUMN "margin_top_mm" double precision DEFAULT 5 NOT NULL;--> statement-breakpoint
ALTER TABLE "printer" ADD COLUMN "margin_bottom_mm" double precision DEFAULT 5 NOT NULL;--> statement-breakpoint
ALTER TABLE "program" ADD COLUMN "shop_id" uuid;--> statement-breakpoint
UPDATE "program" SET "shop_id" = (SELECT id FROM shop);--> statement-breakpoint
ALTER TABLE "program" ALTER COLUMN "shop_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "program" ADD COLUMN "can_cut_again" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "program" ADD COLUMN "spot_ink_name" text;--> statement-breakpoint
ALTER TABLE "program" ADD COLUMN "largest_width_mm" double precision;--> statement-breakpoint
ALTER TABLE "program" ADD COLUMN "largest_length_mm" double precision;--> statement-breakpoint
ALTER TABLE "program" ADD COLUMN "bleed_default_mm" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "program" ADD COLUMN "prints_unstroked" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "program" ADD COLUMN "holds_cut_data" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "program" ADD COLUMN "mark_scheme_id" uuid;--> statement-breakpoint
ALTER TABLE "setup" ADD COLUMN "shop_id" uuid;--> statement-breakpoint
UPDATE "setup" SET "shop_id" = (SELECT id FROM shop);--> statement-breakpoint
ALTER TABLE "setup" ALTER COLUMN "shop_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "setup" ADD COLUMN "family" text;--> statement-breakpoint
UPDATE "setup" SET "family" = CASE WHEN "route" = 'A' THEN 'F1' ELSE 'F3' END;--> statement-breakpoint
ALTER TABLE "setup" ALTER COLUMN "family" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "mark_scheme" ADD CONSTRAINT "mark_scheme_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "which_way_test" ADD CONSTRAINT "which_way_test_machine_setting_id_machine_setting_id_fk" FOREIGN KEY ("machine_setting_id") REFERENCES "machine_setting"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "which_way_test" ADD CONSTRAINT "which_way_test_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "mark_scheme_name" ON "mark_scheme" USING btree ("shop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "shop_demo" ON "shop" USING btree ("is_demo") WHERE "shop"."is_demo";--> statement-breakpoint
ALTER TABLE "cutter" ADD CONSTRAINT "cutter_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cutter" ADD CONSTRAINT "cutter_mark_scheme_id_mark_scheme_id_fk" FOREIGN KEY ("mark_scheme_id") REFERENCES "mark_scheme"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machine_setting" ADD CONSTRAINT "machine_setting_program_id_program_id_fk" FOREIGN KEY ("program_id") REFERENCES "program"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "material" ADD CONSTRAINT "material_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "printer" ADD CONSTRAINT "printer_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "program" ADD CONSTRAINT "program_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "program" ADD CONSTRAINT "program_mark_scheme_id_mark_scheme_id_fk" FOREIGN KEY ("mark_scheme_id") REFERENCES "mark_scheme"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setup" ADD CONSTRAINT "setup_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "cutter_name" ON "cutter" USING btree ("shop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "material_name" ON "material" USING btree ("shop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "person_name" ON "person" USING btree ("shop_id",lower("name")) WHERE "person"."archived_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "printer_name" ON "printer" USING btree ("shop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "program_name" ON "program" USING btree ("shop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "setup_name" ON "setup" USING btree ("shop_id",lower("name"));--> statement-breakpoint
ALTER TABLE "cutter" ADD CONSTRAINT "cutter_tool" CHECK ("cutter"."hpgl_tool" between 1 and 8);--> statement-breakpoint
ALTER TABLE "cutter" ADD CONSTRAINT "cutter_spare" CHECK ("cutter"."spare_front_mm" >= 0 and "cutter"."spare_rear_mm" >= 0);--> statement-breakpoint
ALTER TABLE "machine_setting" ADD CONSTRAINT "machine_setting_owner" CHECK (num_nonnulls("machine_setting"."cutter_id", "machine_setting"."program_id") = 1);--> statement-breakpoint
ALTER TABLE "machine_setting" ADD CONSTRAINT "machine_setting_unit" CHECK (("machine_setting"."unit" in ('step', 'nominal_measured')) = ("machine_setting"."unit_size" is not null));--> statement-breakpoint
ALTER TABLE "material" ADD CONSTRAINT "material_drying" CHECK ("material"."drying_hours" >= 0);--> statement-breakpoint
ALTER TABLE "material" ADD CONSTRAINT "material_width" CHECK (coalesce("material"."printable_width_mm", 0) <= coalesce("material"."width_mm", 1e6));--> statement-breakpoint
ALTER TABLE "print_mode" ADD CONSTRAINT "print_mode_page" CHECK ("print_mode"."page_width_mm" > 0 and "print_mode"."page_length_mm" > 0);--> statement-breakpoint
ALTER TABLE "printer" ADD CONSTRAINT "printer_margins" CHECK (least("printer"."margin_left_mm", "printer"."margin_right_mm", "printer"."margin_top_mm", "printer"."margin_bottom_mm") >= 0);--> statement-breakpoint
ALTER TABLE "program" ADD CONSTRAINT "program_spot_ink" CHECK (("program"."knows_cut_by" = 'spot_ink') = ("program"."spot_ink_name" is not null));--> statement-breakpoint
ALTER TABLE "setup" ADD CONSTRAINT "setup_route" CHECK ("setup"."route" in ('A', 'B', 'C', 'D', 'E'));