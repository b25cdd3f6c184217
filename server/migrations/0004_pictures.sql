ALTER TABLE "files" ALTER COLUMN "lot_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "subject" text;