CREATE TABLE "blobs" (
	"sha256" text PRIMARY KEY NOT NULL,
	"size" bigint NOT NULL,
	"mime" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "children" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"class_id" uuid NOT NULL,
	"household_id" uuid NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "children_name" UNIQUE("class_id","name")
);
--> statement-breakpoint
CREATE TABLE "classes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"setting_id" uuid NOT NULL,
	"teacher_id" uuid NOT NULL,
	"name" text NOT NULL,
	"age" integer NOT NULL,
	CONSTRAINT "classes_name" UNIQUE("setting_id","name"),
	CONSTRAINT "classes_age" CHECK ("classes"."age" between 3 and 7)
);
--> statement-breakpoint
CREATE TABLE "cut_lists" (
	"lesson_id" uuid PRIMARY KEY NOT NULL,
	"revision" integer NOT NULL,
	"doc" jsonb NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "cut_revisions" (
	"lesson_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"doc" jsonb NOT NULL,
	"by_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "cut_revisions_lesson_id_revision_pk" PRIMARY KEY("lesson_id","revision")
);
--> statement-breakpoint
CREATE TABLE "hearings" (
	"take_id" uuid PRIMARY KEY NOT NULL,
	"hearing" jsonb NOT NULL,
	"lesson_revision" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "home_links" (
	"token_hash" "bytea" PRIMARY KEY NOT NULL,
	"household_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"revoked_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "households" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"setting_id" uuid NOT NULL,
	"name" text NOT NULL,
	"younger_child" boolean DEFAULT false NOT NULL,
	"link_version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "households_name" UNIQUE("setting_id","name")
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"setting_id" uuid NOT NULL,
	"lesson_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"subject" text NOT NULL,
	"data" jsonb NOT NULL,
	"status" text DEFAULT 'queued' NOT NULL,
	"step" text DEFAULT 'waiting' NOT NULL,
	"share" double precision DEFAULT 0 NOT NULL,
	"problem" text,
	"attempts" integer DEFAULT 0 NOT NULL,
	"cancel_asked" boolean DEFAULT false NOT NULL,
	"boss_id" uuid,
	"heartbeat_at" timestamp with time zone,
	"started_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "judgements" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"reply_id" uuid NOT NULL,
	"child_id" uuid NOT NULL,
	"idea_id" text NOT NULL,
	"level" text NOT NULL,
	"help" text NOT NULL,
	"rung" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "lesson_revisions" (
	"lesson_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"doc" jsonb NOT NULL,
	"by_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "lesson_revisions_lesson_id_revision_pk" PRIMARY KEY("lesson_id","revision")
);
--> statement-breakpoint
CREATE TABLE "lessons" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"class_id" uuid NOT NULL,
	"day" date NOT NULL,
	"revision" integer NOT NULL,
	"doc" jsonb NOT NULL,
	"findings" integer NOT NULL,
	"film_seconds" double precision NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"setting_id" uuid NOT NULL,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"password_hash" text NOT NULL,
	CONSTRAINT "people_email_unique" UNIQUE("email"),
	CONSTRAINT "people_role" CHECK ("people"."role" in ('owner', 'teacher'))
);
--> statement-breakpoint
CREATE TABLE "photos" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"publication_id" uuid NOT NULL,
	"household_id" uuid NOT NULL,
	"image" text NOT NULL,
	"small" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"reading" jsonb,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "publications" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"lesson_id" uuid NOT NULL,
	"render_id" uuid,
	"lesson_revision" integer NOT NULL,
	"pack" jsonb NOT NULL,
	"sent_at" timestamp with time zone DEFAULT now() NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "renders" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"lesson_id" uuid NOT NULL,
	"cut_revision" integer NOT NULL,
	"film" text NOT NULL,
	"captions" text NOT NULL,
	"poster" text NOT NULL,
	"seconds" double precision NOT NULL,
	"bytes" bigint NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "replies" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"publication_id" uuid NOT NULL,
	"child_id" uuid NOT NULL,
	"key" uuid NOT NULL,
	"answers" jsonb NOT NULL,
	"help" text,
	"words" text DEFAULT '' NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "replies_child" UNIQUE("publication_id","child_id")
);
--> statement-breakpoint
CREATE TABLE "segment_files" (
	"key" text PRIMARY KEY NOT NULL,
	"file" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"token_hash" "bytea" PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "settings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"house_style" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "takes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"lesson_id" uuid NOT NULL,
	"segment_id" text NOT NULL,
	"number" integer NOT NULL,
	"source" text NOT NULL,
	"original" text NOT NULL,
	"film" text,
	"seconds" double precision,
	"has_sound" boolean,
	"peaks" "bytea",
	"status" text DEFAULT 'preparing' NOT NULL,
	"problem" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "takes_number" UNIQUE("lesson_id","segment_id","number")
);
--> statement-breakpoint
ALTER TABLE "children" ADD CONSTRAINT "children_class_id_classes_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."classes"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "children" ADD CONSTRAINT "children_household_id_households_id_fk" FOREIGN KEY ("household_id") REFERENCES "public"."households"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "classes" ADD CONSTRAINT "classes_setting_id_settings_id_fk" FOREIGN KEY ("setting_id") REFERENCES "public"."settings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "classes" ADD CONSTRAINT "classes_teacher_id_people_id_fk" FOREIGN KEY ("teacher_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cut_lists" ADD CONSTRAINT "cut_lists_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cut_revisions" ADD CONSTRAINT "cut_revisions_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cut_revisions" ADD CONSTRAINT "cut_revisions_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hearings" ADD CONSTRAINT "hearings_take_id_takes_id_fk" FOREIGN KEY ("take_id") REFERENCES "public"."takes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "home_links" ADD CONSTRAINT "home_links_household_id_households_id_fk" FOREIGN KEY ("household_id") REFERENCES "public"."households"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "households" ADD CONSTRAINT "households_setting_id_settings_id_fk" FOREIGN KEY ("setting_id") REFERENCES "public"."settings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_setting_id_settings_id_fk" FOREIGN KEY ("setting_id") REFERENCES "public"."settings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "judgements" ADD CONSTRAINT "judgements_reply_id_replies_id_fk" FOREIGN KEY ("reply_id") REFERENCES "public"."replies"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "judgements" ADD CONSTRAINT "judgements_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "judgements" ADD CONSTRAINT "judgements_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lesson_revisions" ADD CONSTRAINT "lesson_revisions_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lesson_revisions" ADD CONSTRAINT "lesson_revisions_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lessons" ADD CONSTRAINT "lessons_class_id_classes_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."classes"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_setting_id_settings_id_fk" FOREIGN KEY ("setting_id") REFERENCES "public"."settings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_publication_id_publications_id_fk" FOREIGN KEY ("publication_id") REFERENCES "public"."publications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_household_id_households_id_fk" FOREIGN KEY ("household_id") REFERENCES "public"."households"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_image_blobs_sha256_fk" FOREIGN KEY ("image") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_small_blobs_sha256_fk" FOREIGN KEY ("small") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "publications" ADD CONSTRAINT "publications_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "publications" ADD CONSTRAINT "publications_render_id_renders_id_fk" FOREIGN KEY ("render_id") REFERENCES "public"."renders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "publications" ADD CONSTRAINT "publications_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "renders" ADD CONSTRAINT "renders_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "renders" ADD CONSTRAINT "renders_film_blobs_sha256_fk" FOREIGN KEY ("film") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "renders" ADD CONSTRAINT "renders_captions_blobs_sha256_fk" FOREIGN KEY ("captions") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "renders" ADD CONSTRAINT "renders_poster_blobs_sha256_fk" FOREIGN KEY ("poster") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "replies" ADD CONSTRAINT "replies_publication_id_publications_id_fk" FOREIGN KEY ("publication_id") REFERENCES "public"."publications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "replies" ADD CONSTRAINT "replies_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "segment_files" ADD CONSTRAINT "segment_files_file_blobs_sha256_fk" FOREIGN KEY ("file") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "takes" ADD CONSTRAINT "takes_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "takes" ADD CONSTRAINT "takes_original_blobs_sha256_fk" FOREIGN KEY ("original") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "takes" ADD CONSTRAINT "takes_film_blobs_sha256_fk" FOREIGN KEY ("film") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "children_household" ON "children" USING btree ("household_id");--> statement-breakpoint
CREATE INDEX "home_links_household" ON "home_links" USING btree ("household_id");--> statement-breakpoint
CREATE INDEX "jobs_lesson" ON "jobs" USING btree ("lesson_id","created_at");--> statement-breakpoint
CREATE INDEX "jobs_open" ON "jobs" USING btree ("status");--> statement-breakpoint
CREATE INDEX "judgements_reply" ON "judgements" USING btree ("reply_id","at");--> statement-breakpoint
CREATE INDEX "judgements_child" ON "judgements" USING btree ("child_id","idea_id");--> statement-breakpoint
CREATE INDEX "lessons_class" ON "lessons" USING btree ("class_id","day");--> statement-breakpoint
CREATE INDEX "people_setting" ON "people" USING btree ("setting_id");--> statement-breakpoint
CREATE INDEX "photos_household" ON "photos" USING btree ("household_id");--> statement-breakpoint
CREATE INDEX "publications_lesson" ON "publications" USING btree ("lesson_id","sent_at");--> statement-breakpoint
CREATE INDEX "renders_lesson" ON "renders" USING btree ("lesson_id","created_at");--> statement-breakpoint
CREATE INDEX "replies_by_child" ON "replies" USING btree ("child_id");--> statement-breakpoint
CREATE INDEX "sessions_person" ON "sessions" USING btree ("person_id");--> statement-breakpoint
CREATE FUNCTION tell_job() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('awlbox', json_build_object('kind', 'job', 'setting', NEW.setting_id, 'lesson', NEW.lesson_id, 'job', NEW.id)::text);
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER jobs_tell AFTER INSERT OR UPDATE ON jobs FOR EACH ROW EXECUTE FUNCTION tell_job();
--> statement-breakpoint
CREATE FUNCTION tell_lesson() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE lesson uuid; setting uuid;
BEGIN
  IF TG_TABLE_NAME = 'replies' THEN SELECT lesson_id INTO lesson FROM publications WHERE id = NEW.publication_id;
  ELSIF TG_TABLE_NAME = 'lessons' THEN lesson := NEW.id;
  ELSE lesson := NEW.lesson_id; END IF;
  SELECT c.setting_id INTO setting FROM lessons l JOIN classes c ON c.id = l.class_id WHERE l.id = lesson;
  PERFORM pg_notify('awlbox', json_build_object('kind', TG_TABLE_NAME, 'setting', setting, 'lesson', lesson)::text);
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER takes_tell AFTER INSERT OR UPDATE ON takes FOR EACH ROW EXECUTE FUNCTION tell_lesson();
--> statement-breakpoint
CREATE TRIGGER replies_tell AFTER INSERT OR UPDATE ON replies FOR EACH ROW EXECUTE FUNCTION tell_lesson();
--> statement-breakpoint
CREATE TRIGGER publications_tell AFTER INSERT ON publications FOR EACH ROW EXECUTE FUNCTION tell_lesson();
--> statement-breakpoint
CREATE TRIGGER lessons_tell AFTER UPDATE ON lessons FOR EACH ROW EXECUTE FUNCTION tell_lesson();
--> statement-breakpoint
CREATE FUNCTION keep_history() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% is append-only: a new row supersedes, the old one stays', TG_TABLE_NAME;
END $$;
--> statement-breakpoint
CREATE TRIGGER judgements_keep BEFORE UPDATE ON judgements FOR EACH ROW EXECUTE FUNCTION keep_history();
--> statement-breakpoint
CREATE TRIGGER publications_keep BEFORE UPDATE ON publications FOR EACH ROW EXECUTE FUNCTION keep_history();
--> statement-breakpoint
CREATE TRIGGER revisions_keep BEFORE UPDATE ON lesson_revisions FOR EACH ROW EXECUTE FUNCTION keep_history();
