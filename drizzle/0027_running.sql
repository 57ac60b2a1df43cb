ALTER TABLE "shop" ADD COLUMN "currency" text;--> statement-breakpoint
ALTER TABLE "shop" ADD CONSTRAINT "shop_currency" CHECK ("shop"."currency" ~ '^[A-Z]{3}$');--> statement-breakpoint
-- Costs in some currencies run to hundreds of millions.
ALTER TABLE "job_result" DROP CONSTRAINT "job_result_spoiled_cost_finite", ADD CONSTRAINT "job_result_spoiled_cost_finite" CHECK ("spoiled_cost" BETWEEN -1e9 AND 1e9);--> statement-breakpoint
ALTER TABLE "policy" DROP CONSTRAINT "policy_costly_from_finite", ADD CONSTRAINT "policy_costly_from_finite" CHECK ("costly_from" BETWEEN -1e9 AND 1e9);--> statement-breakpoint
ALTER TABLE "policy" DROP CONSTRAINT "policy_spoil_cost_finite", ADD CONSTRAINT "policy_spoil_cost_finite" CHECK ("spoil_cost" BETWEEN -1e9 AND 1e9);--> statement-breakpoint
ALTER TABLE "policy" DROP CONSTRAINT "policy_check_cost_finite", ADD CONSTRAINT "policy_check_cost_finite" CHECK ("check_cost" BETWEEN -1e9 AND 1e9);--> statement-breakpoint
-- Records are append-only. The one exception is a demo shop that is removed whole: the transaction names it, and it must be a demo.
CREATE FUNCTION removes_demo() RETURNS boolean LANGUAGE plpgsql STABLE AS $$
DECLARE named text := current_setting('red_plumb.removes_demo', true);
BEGIN
  RETURN coalesce(named, '') <> '' AND EXISTS (SELECT 1 FROM shop WHERE id = named::uuid AND is_demo);
END $$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'DELETE' AND removes_demo() THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION 'table % is append-only', TG_TABLE_NAME USING ERRCODE = 'RP001';
END $$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION guard_job() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'DELETE' AND removes_demo() THEN
    RETURN OLD;
  END IF;
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
