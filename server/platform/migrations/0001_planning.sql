CREATE TABLE "household_kits" (
	"household_id" uuid PRIMARY KEY NOT NULL,
	"has" jsonb NOT NULL,
	"countable" integer NOT NULL,
	"can_print" boolean NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "kits_countable" CHECK ("household_kits"."countable" between 0 and 200)
);
--> statement-breakpoint
CREATE TABLE "library_segments" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"setting_id" uuid NOT NULL,
	"segment" jsonb NOT NULL,
	"seconds" double precision NOT NULL,
	"by_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "revision_names" (
	"lesson_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"name" text NOT NULL,
	"by_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "revision_names_lesson_id_revision_at_pk" PRIMARY KEY("lesson_id","revision","at")
);
--> statement-breakpoint
ALTER TABLE "lessons" ADD COLUMN "film_by" date;--> statement-breakpoint
ALTER TABLE "lessons" ADD COLUMN "send_by" date;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "hours" jsonb;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "ladder" jsonb;--> statement-breakpoint
ALTER TABLE "household_kits" ADD CONSTRAINT "household_kits_household_id_households_id_fk" FOREIGN KEY ("household_id") REFERENCES "public"."households"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "library_segments" ADD CONSTRAINT "library_segments_setting_id_settings_id_fk" FOREIGN KEY ("setting_id") REFERENCES "public"."settings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "library_segments" ADD CONSTRAINT "library_segments_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "revision_names" ADD CONSTRAINT "revision_names_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "revision_names" ADD CONSTRAINT "revision_names_lesson_id_revision_lesson_revisions_lesson_id_revision_fk" FOREIGN KEY ("lesson_id","revision") REFERENCES "public"."lesson_revisions"("lesson_id","revision") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "library_setting" ON "library_segments" USING btree ("setting_id","at");