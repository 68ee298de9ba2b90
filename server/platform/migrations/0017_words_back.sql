ALTER TABLE "letters" DROP CONSTRAINT "letters_once";--> statement-breakpoint
ALTER TABLE "letters" ADD COLUMN "reply_id" uuid;--> statement-breakpoint
ALTER TABLE "letters" ADD CONSTRAINT "letters_reply_id_replies_id_fk" FOREIGN KEY ("reply_id") REFERENCES "public"."replies"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "letters_reply" ON "letters" USING btree ("reply_id");--> statement-breakpoint
ALTER TABLE "letters" ADD CONSTRAINT "letters_once" UNIQUE NULLS NOT DISTINCT("publication_id","household_id","kind","reply_id");