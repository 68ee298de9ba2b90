CREATE TABLE "live_acts" (
	"live_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"act" jsonb NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "live_acts_live_id_seq_pk" PRIMARY KEY("live_id","seq")
);
--> statement-breakpoint
CREATE TABLE "live_answers" (
	"live_id" uuid NOT NULL,
	"round_id" text NOT NULL,
	"child_id" uuid NOT NULL,
	"household_id" uuid NOT NULL,
	"key" uuid NOT NULL,
	"answer" jsonb NOT NULL,
	"late" boolean DEFAULT false NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "live_answers_live_id_round_id_child_id_pk" PRIMARY KEY("live_id","round_id","child_id")
);
--> statement-breakpoint
CREATE TABLE "live_lessons" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"lesson_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"doc" jsonb NOT NULL,
	"style" jsonb NOT NULL,
	"pace" double precision,
	"starts_at" timestamp with time zone NOT NULL,
	"minutes" integer NOT NULL,
	"rehearsal" boolean DEFAULT false NOT NULL,
	"called_off_at" timestamp with time zone,
	"state" jsonb NOT NULL,
	"publication_id" uuid,
	"by_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "live_presence" (
	"live_id" uuid NOT NULL,
	"household_id" uuid NOT NULL,
	"device" text NOT NULL,
	"came_at" timestamp with time zone DEFAULT now() NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL,
	"left_at" timestamp with time zone,
	"seconds" double precision DEFAULT 0 NOT NULL,
	CONSTRAINT "live_presence_live_id_household_id_device_pk" PRIMARY KEY("live_id","household_id","device")
);
--> statement-breakpoint
ALTER TABLE "photos" ALTER COLUMN "publication_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "live_id" uuid;--> statement-breakpoint
ALTER TABLE "replies" ADD COLUMN "live" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "live_acts" ADD CONSTRAINT "live_acts_live_id_live_lessons_id_fk" FOREIGN KEY ("live_id") REFERENCES "public"."live_lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_acts" ADD CONSTRAINT "live_acts_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_answers" ADD CONSTRAINT "live_answers_live_id_live_lessons_id_fk" FOREIGN KEY ("live_id") REFERENCES "public"."live_lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_answers" ADD CONSTRAINT "live_answers_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_answers" ADD CONSTRAINT "live_answers_household_id_households_id_fk" FOREIGN KEY ("household_id") REFERENCES "public"."households"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_lessons" ADD CONSTRAINT "live_lessons_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_lessons" ADD CONSTRAINT "live_lessons_publication_id_publications_id_fk" FOREIGN KEY ("publication_id") REFERENCES "public"."publications"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_lessons" ADD CONSTRAINT "live_lessons_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_presence" ADD CONSTRAINT "live_presence_live_id_live_lessons_id_fk" FOREIGN KEY ("live_id") REFERENCES "public"."live_lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "live_presence" ADD CONSTRAINT "live_presence_household_id_households_id_fk" FOREIGN KEY ("household_id") REFERENCES "public"."households"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "live_answers_child" ON "live_answers" USING btree ("child_id");--> statement-breakpoint
CREATE INDEX "live_answers_household" ON "live_answers" USING btree ("household_id");--> statement-breakpoint
CREATE INDEX "live_lessons_lesson" ON "live_lessons" USING btree ("lesson_id","starts_at");--> statement-breakpoint
CREATE INDEX "live_presence_household" ON "live_presence" USING btree ("household_id");--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_live_id_live_lessons_id_fk" FOREIGN KEY ("live_id") REFERENCES "public"."live_lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "photos_live" ON "photos" USING btree ("live_id");--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_somewhere" CHECK ("photos"."publication_id" is not null or "photos"."live_id" is not null);--> statement-breakpoint
CREATE TRIGGER live_acts_keep BEFORE UPDATE ON live_acts FOR EACH ROW EXECUTE FUNCTION keep_history();
