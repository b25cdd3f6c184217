ALTER TABLE "roast_curves" RENAME TO "curves";--> statement-breakpoint
ALTER TABLE "curves" ADD COLUMN "channels" jsonb;--> statement-breakpoint
ALTER TABLE "curves" ADD COLUMN "values" bytea;--> statement-breakpoint
ALTER TABLE "curve_parts" ADD COLUMN "values" bytea;--> statement-breakpoint
UPDATE "curve_parts" SET "values" = CASE WHEN "curves"."source" LIKE 'pour %' OR "curves"."source" = 'bowl'
	THEN "curve_parts"."bean_c" ELSE "curve_parts"."bean_c" || "curve_parts"."air_c" END
	FROM "curves" WHERE "curves"."id" = "curve_parts"."curve_id";--> statement-breakpoint
DELETE FROM "curve_parts" WHERE "values" IS NULL;--> statement-breakpoint
UPDATE "curves" SET
	"channels" = CASE WHEN "source" LIKE 'pour %' OR "source" = 'bowl'
		THEN '[{"name":"bowl","unit":"°C"}]'::jsonb
		ELSE '[{"name":"bean","unit":"°C"},{"name":"air","unit":"°C"}]'::jsonb END,
	"values" = CASE WHEN "source" LIKE 'pour %' OR "source" = 'bowl' THEN "bean_c" ELSE "bean_c" || "air_c" END;--> statement-breakpoint
ALTER TABLE "curves" ALTER COLUMN "channels" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "curves" ALTER COLUMN "values" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "curves" DROP COLUMN "bean_c";--> statement-breakpoint
ALTER TABLE "curves" DROP COLUMN "air_c";--> statement-breakpoint
ALTER TABLE "curve_parts" ALTER COLUMN "values" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "curve_parts" DROP COLUMN "bean_c";--> statement-breakpoint
ALTER TABLE "curve_parts" DROP COLUMN "air_c";
