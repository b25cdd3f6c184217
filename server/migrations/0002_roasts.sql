CREATE TABLE "roast_curves" (
	"id" text PRIMARY KEY NOT NULL,
	"load_id" text,
	"name" text NOT NULL,
	"source" text NOT NULL,
	"started_at" bigint NOT NULL,
	"readings" integer NOT NULL,
	"seconds" "bytea" NOT NULL,
	"bean_c" "bytea" NOT NULL,
	"air_c" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "roast_records" (
	"id" text PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"at" bigint NOT NULL,
	"recorded_at" bigint NOT NULL,
	"person_id" text NOT NULL,
	"value" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "roast_curves" ADD CONSTRAINT "roast_curves_load_id_holdings_id_fk" FOREIGN KEY ("load_id") REFERENCES "public"."holdings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "roast_records" ADD CONSTRAINT "roast_records_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;