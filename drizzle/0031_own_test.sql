ALTER TABLE "cutter" RENAME COLUMN "ladder" TO "own_test";--> statement-breakpoint
-- One row of numbered lines stood for both axes; halves were read.
UPDATE "cutter" SET "own_test" = jsonb_build_object('across', "row", 'along', "row", 'sheet', 'own')
FROM (
  SELECT "id" AS "cutter_id", jsonb_build_object(
    'labels', CASE WHEN ("own_test"->>'first')::numeric < 0 AND ("own_test"->>'middle')::numeric = 0 THEN 'signed' ELSE 'numbers' END,
    'firstNumber', greatest(-99, least(99, round(("own_test"->>'first')::numeric))),
    'lines', greatest(2, least(99, round(("own_test"->>'last')::numeric - ("own_test"->>'first')::numeric) + 1)),
    'middle', greatest(1, least(99, round(("own_test"->>'last')::numeric - ("own_test"->>'first')::numeric) + 1, round(("own_test"->>'middle')::numeric - ("own_test"->>'first')::numeric) + 1)),
    'takesHalves', true,
    'stepMm', "own_test"->'stepMm'
  ) AS "row"
  FROM "cutter" WHERE "own_test" IS NOT NULL
) AS "described"
WHERE "cutter"."id" = "described"."cutter_id";
