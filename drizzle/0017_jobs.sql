CREATE TABLE "cut_release" (
	"id" uuid PRIMARY KEY NOT NULL,
	"locked_layout_id" uuid NOT NULL,
	"changes" text[] NOT NULL,
	"kind" text,
	"name" text,
	"content" "bytea",
	"content_sha256" "bytea",
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "cut_release_file" CHECK (num_nulls("cut_release"."kind", "cut_release"."name", "cut_release"."content", "cut_release"."content_sha256") in (0, 4))
);
--> statement-breakpoint
CREATE TABLE "job" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"name" text NOT NULL,
	"setup_id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"state" text NOT NULL,
	"draft" jsonb NOT NULL,
	"made_from_id" uuid,
	"archived_reason" text,
	"archived_state" text,
	"started_at" timestamp with time zone NOT NULL,
	"started_by" uuid NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "job_number" UNIQUE("shop_id","number"),
	CONSTRAINT "job_number_from_one" CHECK ("job"."number" >= 1),
	CONSTRAINT "job_archived" CHECK (("job"."state" = 'archived') = ("job"."archived_reason" is not null and "job"."archived_state" is not null))
);
--> statement-breakpoint
CREATE TABLE "job_art" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"file_name" text NOT NULL,
	"media_type" text NOT NULL,
	"content" "bytea" NOT NULL,
	"content_sha256" "bytea" NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "job_art_content" CHECK (octet_length("job_art"."content") between 1 and 67108864),
	CONSTRAINT "job_art_hash" CHECK (octet_length("job_art"."content_sha256") = 32)
);
--> statement-breakpoint
CREATE TABLE "job_print" (
	"id" uuid PRIMARY KEY NOT NULL,
	"locked_layout_id" uuid NOT NULL,
	"printed_at" timestamp with time zone NOT NULL,
	"dry_at" timestamp with time zone,
	"sheets" integer NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "job_print_lockedLayoutId_unique" UNIQUE("locked_layout_id"),
	CONSTRAINT "job_print_sheets" CHECK ("job_print"."sheets" >= 1)
);
--> statement-breakpoint
CREATE TABLE "job_result" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"good" integer NOT NULL,
	"spoiled" integer NOT NULL,
	"spoiled_cost" double precision NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "job_result_seq" UNIQUE("job_id","seq"),
	CONSTRAINT "job_result_counts" CHECK ("job_result"."good" >= 0 and "job_result"."spoiled" >= 0 and "job_result"."spoiled_cost" >= 0)
);
--> statement-breakpoint
CREATE TABLE "locked_file" (
	"locked_layout_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"content" "bytea" NOT NULL,
	"content_sha256" "bytea" NOT NULL,
	CONSTRAINT "locked_file_locked_layout_id_kind_pk" PRIMARY KEY("locked_layout_id","kind"),
	CONSTRAINT "locked_file_hash" CHECK (octet_length("locked_file"."content_sha256") = 32)
);
--> statement-breakpoint
CREATE TABLE "locked_layout" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"content" jsonb NOT NULL,
	"content_sha256" "bytea" NOT NULL,
	"settings_snapshot" jsonb NOT NULL,
	"material_version" integer NOT NULL,
	"own_file_name" text,
	"own_file_bytes" bigint,
	"own_file_sha256" text,
	"warnings" text[] NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" uuid NOT NULL,
	CONSTRAINT "locked_layout_jobId_unique" UNIQUE("job_id"),
	CONSTRAINT "locked_layout_hash" CHECK (octet_length("locked_layout"."content_sha256") = 32),
	CONSTRAINT "locked_layout_own_file" CHECK (num_nulls("locked_layout"."own_file_name", "locked_layout"."own_file_bytes", "locked_layout"."own_file_sha256") in (0, 3)),
	CONSTRAINT "locked_layout_own_hash" CHECK ("locked_layout"."own_file_sha256" ~ '^[0-9a-f]{64}$')
);
--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "roller_width_mm" double precision;--> statement-breakpoint
ALTER TABLE "cutter" ADD COLUMN "roller_from_edge_mm" double precision;--> statement-breakpoint
ALTER TABLE "cut_release" ADD CONSTRAINT "cut_release_locked_layout_id_locked_layout_id_fk" FOREIGN KEY ("locked_layout_id") REFERENCES "locked_layout"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cut_release" ADD CONSTRAINT "cut_release_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_setup_id_setup_id_fk" FOREIGN KEY ("setup_id") REFERENCES "setup"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_started_by_person_id_fk" FOREIGN KEY ("started_by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_art" ADD CONSTRAINT "job_art_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_print" ADD CONSTRAINT "job_print_locked_layout_id_locked_layout_id_fk" FOREIGN KEY ("locked_layout_id") REFERENCES "locked_layout"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_print" ADD CONSTRAINT "job_print_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_result" ADD CONSTRAINT "job_result_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_result" ADD CONSTRAINT "job_result_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "locked_file" ADD CONSTRAINT "locked_file_locked_layout_id_locked_layout_id_fk" FOREIGN KEY ("locked_layout_id") REFERENCES "locked_layout"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "locked_layout" ADD CONSTRAINT "locked_layout_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "locked_layout" ADD CONSTRAINT "locked_layout_by_person_id_fk" FOREIGN KEY ("by") REFERENCES "person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "cut_release_layout" ON "cut_release" USING btree ("locked_layout_id","at");--> statement-breakpoint
CREATE INDEX "job_state" ON "job" USING btree ("shop_id","state");--> statement-breakpoint
CREATE INDEX "job_setup" ON "job" USING btree ("setup_id");--> statement-breakpoint
CREATE INDEX "job_art_job" ON "job_art" USING btree ("job_id");--> statement-breakpoint
ALTER TABLE "cutter" ADD CONSTRAINT "cutter_rollers" CHECK (("cutter"."roller_width_mm" is null) = ("cutter"."roller_from_edge_mm" is null) and coalesce("cutter"."roller_width_mm", 1) > 0 and coalesce("cutter"."roller_from_edge_mm", 0) >= 0);--> statement-breakpoint
DO $$
DECLARE guarded text;
BEGIN
  FOREACH guarded IN ARRAY ARRAY['job_art', 'locked_layout', 'locked_file', 'job_print', 'cut_release', 'job_result']
  LOOP
    EXECUTE format('CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()', guarded);
    EXECUTE format('CREATE TRIGGER append_only_all BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()', guarded);
  END LOOP;
END $$;
--> statement-breakpoint
CREATE FUNCTION guard_job() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'DELETE' OR TG_OP = 'TRUNCATE' THEN
    RAISE EXCEPTION 'a job is never deleted: it is archived with a reason' USING ERRCODE = 'restrict_violation';
  END IF;
  IF OLD.state <> 'draft' AND NOT (OLD.state = 'archived' AND OLD.archived_state = 'draft')
    AND (NEW.draft IS DISTINCT FROM OLD.draft OR NEW.setup_id <> OLD.setup_id OR NEW.material_id <> OLD.material_id) THEN
    RAISE EXCEPTION 'a locked job is never changed: a change makes another job' USING ERRCODE = 'restrict_violation';
  END IF;
  IF NEW.state = 'draft' AND NOT (OLD.state = 'draft' OR (OLD.state = 'archived' AND OLD.archived_state = 'draft')) THEN
    RAISE EXCEPTION 'a locked job never becomes a draft again' USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER guard_job BEFORE UPDATE OR DELETE ON job FOR EACH ROW EXECUTE FUNCTION guard_job();
--> statement-breakpoint
CREATE TRIGGER guard_job_all BEFORE TRUNCATE ON job FOR EACH STATEMENT EXECUTE FUNCTION guard_job();
--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_made_from" FOREIGN KEY ("made_from_id") REFERENCES "job"("id");
--> statement-breakpoint
DO $$
DECLARE found record;
BEGIN
  FOR found IN
    SELECT table_name, column_name FROM information_schema.columns
    WHERE table_schema = current_schema() AND data_type = 'double precision'
      AND (table_name = 'job_result' OR (table_name = 'cutter' AND column_name LIKE 'roller%'))
  LOOP
    EXECUTE format('ALTER TABLE %I ADD CONSTRAINT %I CHECK (%I BETWEEN -1e6 AND 1e6)',
      found.table_name, found.table_name || '_' || found.column_name || '_finite', found.column_name);
  END LOOP;
END $$;
