DROP INDEX "consents_child";--> statement-breakpoint
ALTER TABLE "consents" ADD COLUMN "n" bigserial NOT NULL;--> statement-breakpoint
CREATE INDEX "consents_child" ON "consents" USING btree ("child_id","kind","n");