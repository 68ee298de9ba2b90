ALTER TABLE "replies" ADD COLUMN "way" text;--> statement-breakpoint
ALTER TABLE "replies" ADD COLUMN "feeling" text;--> statement-breakpoint
ALTER TABLE "replies" ADD COLUMN "could_not" boolean DEFAULT false NOT NULL;