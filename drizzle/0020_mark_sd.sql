ALTER TABLE "confirmation" ADD COLUMN "mark_sd_mm" double precision;--> statement-breakpoint
ALTER TABLE "confirmation" ADD COLUMN "is_mark_sd_assumed" boolean;--> statement-breakpoint
ALTER TABLE "confirmation" ADD COLUMN "next_out_share" double precision;--> statement-breakpoint
CREATE INDEX "history_entry_material" ON "history_entry" USING btree ("setup_id","material_id","seq");--> statement-breakpoint
ALTER TABLE "confirmation" ADD CONSTRAINT "confirmation_next_job_known" CHECK ("mark_sd_mm" BETWEEN 0 AND 1e6 AND "next_out_share" BETWEEN 0 AND 1);
