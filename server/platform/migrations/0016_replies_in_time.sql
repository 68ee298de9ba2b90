DROP INDEX "replies_by_child";--> statement-breakpoint
CREATE INDEX "replies_by_child" ON "replies" USING btree ("child_id","received_at");