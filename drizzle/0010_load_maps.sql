CREATE TABLE "load_map" (
	"fit_id" uuid NOT NULL,
	"load_no" integer NOT NULL,
	"correction_id" uuid,
	"parameters" double precision[] NOT NULL,
	"covariance" double precision[] NOT NULL,
	"marks" double precision[] NOT NULL,
	"load_model" text NOT NULL,
	CONSTRAINT "load_map_fit_id_load_no_pk" PRIMARY KEY("fit_id","load_no"),
	CONSTRAINT "load_map_parameters" CHECK (cardinality("load_map"."parameters") = 6),
	CONSTRAINT "load_map_covariance" CHECK (cardinality("load_map"."covariance") = 36)
);
--> statement-breakpoint
ALTER TABLE "load_map" ADD CONSTRAINT "load_map_fit_id_fit_id_fk" FOREIGN KEY ("fit_id") REFERENCES "fit"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON load_map FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER append_only_all BEFORE TRUNCATE ON load_map FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
