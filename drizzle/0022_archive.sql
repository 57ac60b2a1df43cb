-- Rows that name an earlier row of their own table may come in any order while a whole shop is put back: checked at the end.
ALTER TABLE "correction" ALTER CONSTRAINT "correction_put_back" DEFERRABLE INITIALLY IMMEDIATE;--> statement-breakpoint
ALTER TABLE "event" ALTER CONSTRAINT "event_undoes" DEFERRABLE INITIALLY IMMEDIATE;--> statement-breakpoint
ALTER TABLE "reading" ALTER CONSTRAINT "reading_supersedes_own_slot" DEFERRABLE INITIALLY IMMEDIATE;--> statement-breakpoint
ALTER TABLE "station_reading" ALTER CONSTRAINT "station_reading_supersedes_own_slot" DEFERRABLE INITIALLY IMMEDIATE;--> statement-breakpoint
ALTER TABLE "job" ALTER CONSTRAINT "job_made_from" DEFERRABLE INITIALLY IMMEDIATE;
