CREATE TABLE "history_note" (
	"id" uuid PRIMARY KEY NOT NULL,
	"history_entry_id" uuid NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "history_note_words" CHECK (length("history_note"."note") > 0)
);
--> statement-breakpoint
DROP INDEX "daily_check_setup";--> statement-breakpoint
ALTER TABLE "history_note" ADD CONSTRAINT "history_note_history_entry_id_history_entry_id_fk" FOREIGN KEY ("history_entry_id") REFERENCES "history_entry"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "history_note" ADD CONSTRAINT "history_note_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "history_note_entry" ON "history_note" USING btree ("history_entry_id","at");--> statement-breakpoint
CREATE INDEX "event_printer" ON "event" USING btree ("printer_id","at");--> statement-breakpoint
CREATE INDEX "event_program" ON "event" USING btree ("program_id","at");--> statement-breakpoint
CREATE INDEX "event_at" ON "event" USING btree ("at");--> statement-breakpoint
CREATE INDEX "history_entry_at" ON "history_entry" USING btree ("at");--> statement-breakpoint
CREATE INDEX "job_result_at" ON "job_result" USING btree ("at");--> statement-breakpoint
CREATE INDEX "daily_check_at" ON "daily_check" USING btree ("at");--> statement-breakpoint
CREATE INDEX "daily_check_setup" ON "daily_check" USING btree ("setup_id","at");--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON history_note FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER append_only_all BEFORE TRUNCATE ON history_note FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
