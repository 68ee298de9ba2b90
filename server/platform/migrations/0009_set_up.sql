CREATE TABLE "set_up_links" (
	"token_hash" "bytea" PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "time_zone" text DEFAULT 'Europe/London' NOT NULL;