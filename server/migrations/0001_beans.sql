CREATE TABLE "bean_records" (
	"id" text PRIMARY KEY NOT NULL,
	"lot_id" text,
	"kind" text NOT NULL,
	"at" bigint NOT NULL,
	"recorded_at" bigint NOT NULL,
	"person_id" text NOT NULL,
	"value" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "files" (
	"id" text PRIMARY KEY NOT NULL,
	"lot_id" text NOT NULL,
	"name" text NOT NULL,
	"caption" text NOT NULL,
	"type" text NOT NULL,
	"size" integer NOT NULL,
	"width" integer,
	"height" integer,
	"sha256" text NOT NULL,
	"at" bigint NOT NULL,
	"person_id" text NOT NULL,
	"bytes" "bytea"
);
--> statement-breakpoint
ALTER TABLE "bean_records" ADD CONSTRAINT "bean_records_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bean_records" ADD CONSTRAINT "bean_records_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "files" ADD CONSTRAINT "files_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "files" ADD CONSTRAINT "files_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bean_records_lot" ON "bean_records" USING btree ("lot_id");