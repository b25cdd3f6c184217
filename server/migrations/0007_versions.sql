ALTER TABLE "records" ADD COLUMN "subject" text;--> statement-breakpoint
ALTER TABLE "records" ADD COLUMN "v" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
CREATE INDEX "records_subject" ON "records" USING btree ("subject");--> statement-breakpoint
INSERT INTO "records" ("id", "room", "subject", "kind", "at", "recorded_at", "person_id", "value")
	SELECT "id", 'beans', "lot_id", "kind", "at", "recorded_at", "person_id", "value" FROM "bean_records";--> statement-breakpoint
INSERT INTO "records" ("id", "room", "kind", "at", "recorded_at", "person_id", "value")
	SELECT "id", 'roast', "kind", "at", "recorded_at", "person_id", "value" FROM "roast_records";--> statement-breakpoint
DROP TABLE "bean_records" CASCADE;--> statement-breakpoint
DROP TABLE "roast_records" CASCADE;
