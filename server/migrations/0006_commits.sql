CREATE TABLE "commits" (
	"id" integer PRIMARY KEY NOT NULL,
	"number" integer NOT NULL,
	"lineage" text NOT NULL
);
