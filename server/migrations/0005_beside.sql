CREATE TABLE "curve_parts" (
	"curve_id" text NOT NULL,
	"part" integer NOT NULL,
	"from" integer NOT NULL,
	"seconds" "bytea" NOT NULL,
	"bean_c" "bytea" NOT NULL,
	"air_c" "bytea" NOT NULL,
	CONSTRAINT "curve_parts_curve_id_part_pk" PRIMARY KEY("curve_id","part")
);
--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "removed" boolean DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE "files" SET "removed" = true WHERE "bytes" IS NULL;
