CREATE TABLE "child_sets" (
	"lesson_id" uuid NOT NULL,
	"child_id" uuid NOT NULL,
	"level" text NOT NULL,
	CONSTRAINT "child_sets_lesson_id_child_id_pk" PRIMARY KEY("lesson_id","child_id")
);
--> statement-breakpoint
CREATE TABLE "home_codes" (
	"code_hash" "bytea" PRIMARY KEY NOT NULL,
	"household_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "home_words" (
	"setting_id" uuid NOT NULL,
	"language" text NOT NULL,
	"key" text NOT NULL,
	"words" text NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "home_words_setting_id_language_key_pk" PRIMARY KEY("setting_id","language","key")
);
--> statement-breakpoint
CREATE TABLE "letters" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"setting_id" uuid NOT NULL,
	"household_id" uuid NOT NULL,
	"publication_id" uuid,
	"kind" text NOT NULL,
	"subject" text NOT NULL,
	"body" text NOT NULL,
	"language" text NOT NULL,
	"state" text NOT NULL,
	"after" timestamp with time zone NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"problem" text,
	"gone_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "letters_once" UNIQUE("publication_id","household_id","kind")
);
--> statement-breakpoint
CREATE TABLE "recordings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"publication_id" uuid NOT NULL,
	"household_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"file" text NOT NULL,
	"seconds" double precision NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "household_kits" ADD COLUMN "ways" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "households" ADD COLUMN "language" text;--> statement-breakpoint
ALTER TABLE "households" ADD COLUMN "email" text;--> statement-breakpoint
ALTER TABLE "publications" ADD COLUMN "due" date;--> statement-breakpoint
ALTER TABLE "publications" ADD COLUMN "closes" date;--> statement-breakpoint
ALTER TABLE "replies" ADD COLUMN "gave" text;--> statement-breakpoint
ALTER TABLE "replies" ADD COLUMN "chose" text;--> statement-breakpoint
ALTER TABLE "replies" ADD COLUMN "why" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "post" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "child_sets" ADD CONSTRAINT "child_sets_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "child_sets" ADD CONSTRAINT "child_sets_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "home_codes" ADD CONSTRAINT "home_codes_household_id_households_id_fk" FOREIGN KEY ("household_id") REFERENCES "public"."households"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "home_words" ADD CONSTRAINT "home_words_setting_id_settings_id_fk" FOREIGN KEY ("setting_id") REFERENCES "public"."settings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "home_words" ADD CONSTRAINT "home_words_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "letters" ADD CONSTRAINT "letters_setting_id_settings_id_fk" FOREIGN KEY ("setting_id") REFERENCES "public"."settings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "letters" ADD CONSTRAINT "letters_household_id_households_id_fk" FOREIGN KEY ("household_id") REFERENCES "public"."households"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "letters" ADD CONSTRAINT "letters_publication_id_publications_id_fk" FOREIGN KEY ("publication_id") REFERENCES "public"."publications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recordings" ADD CONSTRAINT "recordings_publication_id_publications_id_fk" FOREIGN KEY ("publication_id") REFERENCES "public"."publications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recordings" ADD CONSTRAINT "recordings_household_id_households_id_fk" FOREIGN KEY ("household_id") REFERENCES "public"."households"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recordings" ADD CONSTRAINT "recordings_file_blobs_sha256_fk" FOREIGN KEY ("file") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "child_sets_child" ON "child_sets" USING btree ("child_id");--> statement-breakpoint
CREATE INDEX "home_codes_household" ON "home_codes" USING btree ("household_id");--> statement-breakpoint
CREATE INDEX "letters_waiting" ON "letters" USING btree ("state","after");--> statement-breakpoint
CREATE INDEX "letters_household" ON "letters" USING btree ("household_id","created_at");--> statement-breakpoint
CREATE INDEX "recordings_household" ON "recordings" USING btree ("household_id");--> statement-breakpoint
CREATE OR REPLACE FUNCTION tell_lesson() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE lesson uuid; setting uuid;
BEGIN
  IF TG_TABLE_NAME IN ('replies', 'letters') THEN SELECT lesson_id INTO lesson FROM publications WHERE id = NEW.publication_id;
  ELSIF TG_TABLE_NAME = 'lessons' THEN lesson := NEW.id;
  ELSE lesson := NEW.lesson_id; END IF;
  SELECT c.setting_id INTO setting FROM lessons l JOIN classes c ON c.id = l.class_id WHERE l.id = lesson;
  PERFORM pg_notify('awlbox', json_build_object('kind', TG_TABLE_NAME, 'setting', setting, 'lesson', lesson)::text);
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER letters_tell AFTER INSERT OR UPDATE ON letters FOR EACH ROW EXECUTE FUNCTION tell_lesson();
--> statement-breakpoint
CREATE TRIGGER child_sets_tell AFTER INSERT OR UPDATE ON child_sets FOR EACH ROW EXECUTE FUNCTION tell_lesson();
