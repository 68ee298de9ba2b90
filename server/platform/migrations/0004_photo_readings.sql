ALTER TABLE "photos" ADD COLUMN "reader_version" integer;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "unread" text;--> statement-breakpoint
CREATE INDEX "photos_reader" ON "photos" USING btree ("reader_version");