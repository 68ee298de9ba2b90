CREATE TABLE "finished_uploads" (
	"id" text PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"take_id" uuid NOT NULL,
	"size" bigint NOT NULL,
	"known" boolean NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "finished_uploads" ADD CONSTRAINT "finished_uploads_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "finished_uploads" ADD CONSTRAINT "finished_uploads_take_id_takes_id_fk" FOREIGN KEY ("take_id") REFERENCES "public"."takes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "finished_uploads_take" ON "finished_uploads" USING btree ("take_id");--> statement-breakpoint
CREATE INDEX "finished_uploads_person" ON "finished_uploads" USING btree ("person_id");