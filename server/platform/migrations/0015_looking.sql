CREATE TABLE "askings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"reply_id" uuid NOT NULL,
	"task_id" text NOT NULL,
	"words" text DEFAULT '' NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"answered_at" timestamp with time zone,
	CONSTRAINT "askings_task" UNIQUE("reply_id","task_id")
);
--> statement-breakpoint
CREATE TABLE "comparisons" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"lesson_id" uuid NOT NULL,
	"better_id" uuid NOT NULL,
	"other_id" uuid NOT NULL,
	"same" boolean DEFAULT false NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "corrections" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"photo_id" uuid NOT NULL,
	"reading" jsonb NOT NULL,
	"before" jsonb,
	"traits" jsonb NOT NULL,
	"reader_version" integer,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "feedback" (
	"reply_id" uuid PRIMARY KEY NOT NULL,
	"body" text NOT NULL,
	"by_id" uuid NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"sent_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "overrides" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"child_id" uuid NOT NULL,
	"idea_id" text NOT NULL,
	"level" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "second_judgements" (
	"round_id" uuid NOT NULL,
	"reply_id" uuid NOT NULL,
	"level" text NOT NULL,
	"help" text NOT NULL,
	"rung" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"settled" text,
	"settled_words" text DEFAULT '' NOT NULL,
	"settled_by_id" uuid,
	CONSTRAINT "second_judgements_round_id_reply_id_pk" PRIMARY KEY("round_id","reply_id")
);
--> statement-breakpoint
CREATE TABLE "second_rounds" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"lesson_id" uuid NOT NULL,
	"first_id" uuid NOT NULL,
	"second_id" uuid NOT NULL,
	"reply_ids" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "standings" (
	"child_id" uuid NOT NULL,
	"idea_id" text NOT NULL,
	"kept" jsonb,
	CONSTRAINT "standings_child_id_idea_id_pk" PRIMARY KEY("child_id","idea_id")
);
--> statement-breakpoint
ALTER TABLE "askings" ADD CONSTRAINT "askings_reply_id_replies_id_fk" FOREIGN KEY ("reply_id") REFERENCES "public"."replies"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "askings" ADD CONSTRAINT "askings_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "comparisons" ADD CONSTRAINT "comparisons_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "comparisons" ADD CONSTRAINT "comparisons_better_id_replies_id_fk" FOREIGN KEY ("better_id") REFERENCES "public"."replies"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "comparisons" ADD CONSTRAINT "comparisons_other_id_replies_id_fk" FOREIGN KEY ("other_id") REFERENCES "public"."replies"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "comparisons" ADD CONSTRAINT "comparisons_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "corrections" ADD CONSTRAINT "corrections_photo_id_photos_id_fk" FOREIGN KEY ("photo_id") REFERENCES "public"."photos"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "corrections" ADD CONSTRAINT "corrections_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "feedback" ADD CONSTRAINT "feedback_reply_id_replies_id_fk" FOREIGN KEY ("reply_id") REFERENCES "public"."replies"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "feedback" ADD CONSTRAINT "feedback_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "overrides" ADD CONSTRAINT "overrides_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "overrides" ADD CONSTRAINT "overrides_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_judgements" ADD CONSTRAINT "second_judgements_round_id_second_rounds_id_fk" FOREIGN KEY ("round_id") REFERENCES "public"."second_rounds"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_judgements" ADD CONSTRAINT "second_judgements_reply_id_replies_id_fk" FOREIGN KEY ("reply_id") REFERENCES "public"."replies"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_judgements" ADD CONSTRAINT "second_judgements_settled_by_id_people_id_fk" FOREIGN KEY ("settled_by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_rounds" ADD CONSTRAINT "second_rounds_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_rounds" ADD CONSTRAINT "second_rounds_first_id_people_id_fk" FOREIGN KEY ("first_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_rounds" ADD CONSTRAINT "second_rounds_second_id_people_id_fk" FOREIGN KEY ("second_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "standings" ADD CONSTRAINT "standings_child_id_children_id_fk" FOREIGN KEY ("child_id") REFERENCES "public"."children"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "comparisons_lesson" ON "comparisons" USING btree ("lesson_id","at");--> statement-breakpoint
CREATE INDEX "corrections_photo" ON "corrections" USING btree ("photo_id","at");--> statement-breakpoint
CREATE INDEX "overrides_child" ON "overrides" USING btree ("child_id","idea_id","at");--> statement-breakpoint
CREATE INDEX "second_rounds_lesson" ON "second_rounds" USING btree ("lesson_id");--> statement-breakpoint
CREATE FUNCTION standing_of(child uuid, idea text) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  -- A child that is being deleted takes its standings along: nothing is put back for it.
  IF idea IS NULL THEN
    UPDATE standings SET kept = NULL WHERE child_id = child;
  ELSE
    INSERT INTO standings (child_id, idea_id) SELECT c.id, idea FROM children c WHERE c.id = child
      ON CONFLICT (child_id, idea_id) DO UPDATE SET kept = NULL;
  END IF;
END $$;
--> statement-breakpoint
CREATE FUNCTION reply_moves_standing() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE r replies;
BEGIN
  IF TG_OP = 'DELETE' THEN r := OLD; ELSE r := NEW; END IF;
  PERFORM standing_of(r.child_id, (SELECT pack->>'ideaId' FROM publications WHERE id = r.publication_id));
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER replies_standing AFTER INSERT OR UPDATE OR DELETE ON replies FOR EACH ROW EXECUTE FUNCTION reply_moves_standing();
--> statement-breakpoint
CREATE FUNCTION judged_moves_standing() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'DELETE' THEN PERFORM standing_of(OLD.child_id, OLD.idea_id); ELSE PERFORM standing_of(NEW.child_id, NEW.idea_id); END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER judgements_standing AFTER INSERT OR DELETE ON judgements FOR EACH ROW EXECUTE FUNCTION judged_moves_standing();
--> statement-breakpoint
CREATE TRIGGER overrides_standing AFTER INSERT OR DELETE ON overrides FOR EACH ROW EXECUTE FUNCTION judged_moves_standing();
--> statement-breakpoint
CREATE FUNCTION reading_moves_standing() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE photo uuid;
BEGIN
  IF TG_TABLE_NAME = 'photos' THEN photo := NEW.id; ELSE photo := NEW.photo_id; END IF;
  PERFORM standing_of(r.child_id, p.pack->>'ideaId')
    FROM photos f JOIN replies r ON r.publication_id = f.publication_id JOIN publications p ON p.id = f.publication_id
    WHERE f.id = photo AND r.answers::text LIKE '%' || photo || '%';
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER photos_standing AFTER UPDATE OF reading ON photos FOR EACH ROW EXECUTE FUNCTION reading_moves_standing();
--> statement-breakpoint
CREATE TRIGGER corrections_standing AFTER INSERT ON corrections FOR EACH ROW EXECUTE FUNCTION reading_moves_standing();
--> statement-breakpoint
CREATE TRIGGER overrides_keep BEFORE UPDATE ON overrides FOR EACH ROW EXECUTE FUNCTION keep_history();
--> statement-breakpoint
CREATE TRIGGER corrections_keep BEFORE UPDATE ON corrections FOR EACH ROW EXECUTE FUNCTION keep_history();
--> statement-breakpoint
CREATE INDEX publications_idea ON publications ((pack->>'ideaId'));
--> statement-breakpoint
INSERT INTO standings (child_id, idea_id)
  SELECT r.child_id, p.pack->>'ideaId' FROM replies r JOIN publications p ON p.id = r.publication_id
  UNION SELECT child_id, idea_id FROM judgements;
