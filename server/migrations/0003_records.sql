CREATE TABLE "records" (
	"id" text PRIMARY KEY NOT NULL,
	"room" text NOT NULL,
	"kind" text NOT NULL,
	"at" bigint NOT NULL,
	"recorded_at" bigint NOT NULL,
	"person_id" text NOT NULL,
	"value" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "records" ADD CONSTRAINT "records_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "records_room" ON "records" USING btree ("room");