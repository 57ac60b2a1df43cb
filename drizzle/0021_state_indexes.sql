CREATE INDEX "calibration_state" ON "calibration" USING btree ("state","started_at");--> statement-breakpoint
CREATE INDEX "confirmation_verdict" ON "confirmation" USING btree ("verdict","at");