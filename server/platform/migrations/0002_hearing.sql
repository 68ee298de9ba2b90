CREATE TABLE "heard_pieces" (
	"key" text PRIMARY KEY NOT NULL,
	"words" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "pronunciations" (
	"lesson_id" uuid NOT NULL,
	"segment_id" text NOT NULL,
	"word" text NOT NULL,
	"phones" text NOT NULL,
	"heard" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "pronunciations_lesson_id_segment_id_word_phones_pk" PRIMARY KEY("lesson_id","segment_id","word","phones")
);
--> statement-breakpoint
ALTER TABLE "takes" ALTER COLUMN "segment_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "takes" ADD COLUMN "name" text;--> statement-breakpoint
ALTER TABLE "takes" ADD COLUMN "part" jsonb;--> statement-breakpoint
ALTER TABLE "takes" ADD COLUMN "sorting" jsonb;--> statement-breakpoint
ALTER TABLE "takes" ADD COLUMN "marks" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "takes" ADD COLUMN "corrections" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "takes" ADD COLUMN "captions" text;--> statement-breakpoint
ALTER TABLE "takes" ADD COLUMN "sound" jsonb;--> statement-breakpoint
ALTER TABLE "takes" ADD COLUMN "first_frame" jsonb;--> statement-breakpoint
ALTER TABLE "pronunciations" ADD CONSTRAINT "pronunciations_lesson_id_lessons_id_fk" FOREIGN KEY ("lesson_id") REFERENCES "public"."lessons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "heard_pieces_at" ON "heard_pieces" USING btree ("at");--> statement-breakpoint
CREATE INDEX "takes_original" ON "takes" USING btree ("lesson_id","original");