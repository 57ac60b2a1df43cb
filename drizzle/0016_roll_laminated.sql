ALTER TABLE "roll_run" ADD COLUMN "ruled_laminated_mm" double precision;--> statement-breakpoint
ALTER TABLE "roll_run" ADD CONSTRAINT "roll_run_laminated" CHECK ("roll_run"."ruled_laminated_mm" is null or "roll_run"."ruled_mm" is not null);--> statement-breakpoint
ALTER TABLE "roll_run" ADD CONSTRAINT "roll_run_ruled_laminated_mm_finite" CHECK ("roll_run"."ruled_laminated_mm" BETWEEN -1e6 AND 1e6);
