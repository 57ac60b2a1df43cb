CREATE TABLE "daily_disc" (
	"daily_check_id" uuid NOT NULL,
	"disc_no" integer NOT NULL,
	"across_mm" double precision NOT NULL,
	"along_mm" double precision NOT NULL,
	"standard_uncertainty_mm" double precision NOT NULL,
	CONSTRAINT "daily_disc_daily_check_id_disc_no_pk" PRIMARY KEY("daily_check_id","disc_no"),
	CONSTRAINT "daily_disc_figures" CHECK ("daily_disc"."disc_no" in (1, 2) and "daily_disc"."standard_uncertainty_mm" > 0)
);
--> statement-breakpoint
ALTER TABLE "daily_check" ALTER COLUMN "side" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "daily_check" ALTER COLUMN "left_mm" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "daily_check" ALTER COLUMN "right_mm" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "daily_check" ALTER COLUMN "top_mm" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "daily_check" ALTER COLUMN "bottom_mm" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "daily_check" ALTER COLUMN "border_sd_mm" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "daily_check" ADD COLUMN "method" text DEFAULT 'hand' NOT NULL;--> statement-breakpoint
ALTER TABLE "daily_disc" ADD CONSTRAINT "daily_disc_daily_check_id_daily_check_id_fk" FOREIGN KEY ("daily_check_id") REFERENCES "daily_check"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "daily_check" ADD CONSTRAINT "daily_check_method" CHECK (num_nonnulls("daily_check"."side", "daily_check"."left_mm", "daily_check"."right_mm", "daily_check"."top_mm", "daily_check"."bottom_mm", "daily_check"."border_sd_mm") = case "daily_check"."method" when 'discs' then 0 else 6 end);--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "daily_disc" FOR EACH ROW EXECUTE FUNCTION refuse_change();--> statement-breakpoint
CREATE TRIGGER append_only_all BEFORE TRUNCATE ON "daily_disc" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();--> statement-breakpoint
ALTER TABLE "daily_disc" ADD CONSTRAINT "daily_disc_across_mm_finite" CHECK ("across_mm" BETWEEN -1e6 AND 1e6);--> statement-breakpoint
ALTER TABLE "daily_disc" ADD CONSTRAINT "daily_disc_along_mm_finite" CHECK ("along_mm" BETWEEN -1e6 AND 1e6);--> statement-breakpoint
ALTER TABLE "daily_disc" ADD CONSTRAINT "daily_disc_standard_uncertainty_mm_finite" CHECK ("standard_uncertainty_mm" BETWEEN -1e6 AND 1e6);
