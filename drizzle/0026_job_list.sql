DROP INDEX "job_state";--> statement-breakpoint
CREATE INDEX "cut_release_at" ON "cut_release" USING btree ("at");--> statement-breakpoint
CREATE INDEX "job_open" ON "job" USING btree ("setup_id") WHERE state in ('draft', 'locked', 'waiting');--> statement-breakpoint
CREATE INDEX "job_state" ON "job" USING btree ("shop_id","state","number");