CREATE TABLE "class_covers" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"class_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"from_day" date NOT NULL,
	"until_day" date NOT NULL,
	CONSTRAINT "class_covers_days" CHECK ("class_covers"."until_day" >= "class_covers"."from_day")
);
--> statement-breakpoint
CREATE TABLE "consents" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"child_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"given" boolean NOT NULL,
	"giver" text NOT NULL,
	"day" date NOT NULL,
	"by_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "person_links" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"token_hash" "bytea" NOT NULL,
	"setting_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"person_id" uuid,
	"email" text,
	"role" text DEFAULT 'teacher' NOT NULL,
	"by_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "person_links_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "record" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"setting_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"person_id" uuid,
	"household_id" uuid,
	"act" text NOT NULL,
	"words" text NOT NULL,
	"subject" text
);
--> statement-breakpoint
CREATE TABLE "year_turns" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"setting_id" uuid NOT NULL,
	"done" jsonb NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"undone_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "classes" DROP CONSTRAINT "classes_name";--> statement-breakpoint
ALTER TABLE "children" ALTER COLUMN "class_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "second_household_id" uuid;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "given" text;--> statement-breakpoint
UPDATE "children" SET "given" = "name";--> statement-breakpoint
ALTER TABLE "children" ALTER COLUMN "given" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "languages" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "left_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "left_from" uuid;--> statement-breakpoint
ALTER TABLE "children" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "classes" ADD COLUMN "closed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "households" ADD COLUMN "phone" boolean;--> statement-breakpoint
ALTER TABLE "households" ADD COLUMN "printer" boolean;--> statement-breakpoint
ALTER TABLE "households" ADD COLUMN "metered" boolean;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "ended_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "id" uuid DEFAULT gen_random_uuid() NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "device" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "last_used_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "kept_for" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "class_covers" ADD CONSTRAINT "class_covers_class_id_classes_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."classes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "class_covers" ADD CONSTRAINT "class_covers_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "consents" ADD CONSTRAINT "consents_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "consents" ADD CONSTRAINT "consents_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_links" ADD CONSTRAINT "person_links_setting_id_settings_id_fk" FOREIGN KEY ("setting_id") REFERENCES "public"."settings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_links" ADD CONSTRAINT "person_links_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_links" ADD CONSTRAINT "person_links_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_setting_id_settings_id_fk" FOREIGN KEY ("setting_id") REFERENCES "public"."settings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_household_id_households_id_fk" FOREIGN KEY ("household_id") REFERENCES "public"."households"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "year_turns" ADD CONSTRAINT "year_turns_setting_id_settings_id_fk" FOREIGN KEY ("setting_id") REFERENCES "public"."settings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "year_turns" ADD CONSTRAINT "year_turns_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "class_covers_class" ON "class_covers" USING btree ("class_id");--> statement-breakpoint
CREATE INDEX "class_covers_person" ON "class_covers" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "consents_child" ON "consents" USING btree ("child_id","kind","at");--> statement-breakpoint
CREATE INDEX "person_links_setting" ON "person_links" USING btree ("setting_id");--> statement-breakpoint
CREATE INDEX "record_setting" ON "record" USING btree ("setting_id","id");--> statement-breakpoint
CREATE INDEX "record_person" ON "record" USING btree ("person_id","at");--> statement-breakpoint
CREATE INDEX "year_turns_setting" ON "year_turns" USING btree ("setting_id","at");--> statement-breakpoint
ALTER TABLE "children" ADD CONSTRAINT "children_second_household_id_households_id_fk" FOREIGN KEY ("second_household_id") REFERENCES "public"."households"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "children" ADD CONSTRAINT "children_left_from_classes_id_fk" FOREIGN KEY ("left_from") REFERENCES "public"."classes"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "children_second" ON "children" USING btree ("second_household_id");--> statement-breakpoint
CREATE INDEX "children_left" ON "children" USING btree ("left_from");--> statement-breakpoint
CREATE UNIQUE INDEX "classes_name" ON "classes" USING btree ("setting_id","name") WHERE "classes"."closed_at" is null;--> statement-breakpoint
CREATE INDEX "classes_teacher" ON "classes" USING btree ("teacher_id");--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_id_unique" UNIQUE("id");--> statement-breakpoint
ALTER TABLE "children" ADD CONSTRAINT "children_somewhere" CHECK (("children"."class_id" is null) = ("children"."left_at" is not null));--> statement-breakpoint
-- Names are made anew for a whole class at once: only what stands at the end of it must be unlike.
ALTER TABLE "children" DROP CONSTRAINT "children_name";--> statement-breakpoint
ALTER TABLE "children" ADD CONSTRAINT "children_name" UNIQUE("class_id","name") DEFERRABLE INITIALLY DEFERRED;--> statement-breakpoint
-- The record of use is written and never changed; a home that is deleted leaves its lines, and old ones go when their time is over.
CREATE FUNCTION record_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'DELETE' THEN
    IF coalesce(current_setting('awlbox.letting_go', true), '') = 'on' THEN RETURN OLD; END IF;
  ELSIF NEW.household_id IS NULL
    AND (NEW.id, NEW.setting_id, NEW.at, NEW.act, NEW.words) = (OLD.id, OLD.setting_id, OLD.at, OLD.act, OLD.words)
    AND NEW.person_id IS NOT DISTINCT FROM OLD.person_id
    AND NEW.subject IS NOT DISTINCT FROM OLD.subject THEN
    RETURN NEW;
  END IF;
  RAISE EXCEPTION 'the record of use is only added to';
END $$;--> statement-breakpoint
CREATE TRIGGER record_stays BEFORE UPDATE OR DELETE ON "record" FOR EACH ROW EXECUTE FUNCTION record_stays();
