CREATE TABLE "scan" (
	"id" uuid PRIMARY KEY NOT NULL,
	"cut_set_id" uuid NOT NULL,
	"detector_version" integer NOT NULL,
	"scans" jsonb NOT NULL,
	"picture" "bytea",
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "scan_picture" CHECK ("scan"."picture" is null or octet_length("scan"."picture") <= 700000)
);
--> statement-breakpoint
ALTER TABLE "scan" ADD CONSTRAINT "scan_cut_set_id_cut_set_id_fk" FOREIGN KEY ("cut_set_id") REFERENCES "cut_set"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "scan" ADD CONSTRAINT "scan_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "scan_cut_set" ON "scan" USING btree ("cut_set_id");--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON scan FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER append_only_all BEFORE TRUNCATE ON scan FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
