CREATE TABLE "nightly_backup" (
	"one" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"on" boolean NOT NULL,
	"folder" text NOT NULL,
	"since" timestamp with time zone,
	"last_good" timestamp with time zone,
	"last_tried" timestamp with time zone,
	"last_bytes" bigint,
	"problem" text,
	"asked" boolean DEFAULT false NOT NULL,
	CONSTRAINT "nightly_backup_one" CHECK ("nightly_backup"."one")
);
