CREATE TABLE "scan_original" (
	"scan_id" uuid NOT NULL,
	"no" integer NOT NULL,
	"file_name" text NOT NULL,
	"format" text NOT NULL,
	"content" "bytea" NOT NULL,
	CONSTRAINT "scan_original_scan_id_no_pk" PRIMARY KEY("scan_id","no"),
	CONSTRAINT "scan_original_format" CHECK ("scan_original"."format" in ('png', 'jpeg', 'tiff')),
	CONSTRAINT "scan_original_content" CHECK (octet_length("scan_original"."content") between 1 and 67108864)
);
--> statement-breakpoint
ALTER TABLE "scan_original" ADD CONSTRAINT "scan_original_scan_id_scan_id_fk" FOREIGN KEY ("scan_id") REFERENCES "scan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON scan_original FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER append_only_all BEFORE TRUNCATE ON scan_original FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
