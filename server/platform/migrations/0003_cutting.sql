CREATE TABLE "film_replacements" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"publication_id" uuid NOT NULL,
	"render_id" uuid NOT NULL,
	"changes" jsonb NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "render_files" (
	"render_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"file" text NOT NULL,
	"bytes" bigint NOT NULL,
	CONSTRAINT "render_files_render_id_kind_pk" PRIMARY KEY("render_id","kind")
);
--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "checks" jsonb;--> statement-breakpoint
ALTER TABLE "takes" ADD COLUMN "sheet" text;--> statement-breakpoint
ALTER TABLE "takes" ADD COLUMN "looked" jsonb;--> statement-breakpoint
ALTER TABLE "film_replacements" ADD CONSTRAINT "film_replacements_publication_id_publications_id_fk" FOREIGN KEY ("publication_id") REFERENCES "public"."publications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "film_replacements" ADD CONSTRAINT "film_replacements_render_id_renders_id_fk" FOREIGN KEY ("render_id") REFERENCES "public"."renders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "film_replacements" ADD CONSTRAINT "film_replacements_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "render_files" ADD CONSTRAINT "render_files_render_id_renders_id_fk" FOREIGN KEY ("render_id") REFERENCES "public"."renders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "render_files" ADD CONSTRAINT "render_files_file_blobs_sha256_fk" FOREIGN KEY ("file") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "film_replacements_publication" ON "film_replacements" USING btree ("publication_id","at");--> statement-breakpoint
ALTER TABLE "takes" ADD CONSTRAINT "takes_sheet_blobs_sha256_fk" FOREIGN KEY ("sheet") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE TRIGGER film_replacements_keep BEFORE UPDATE ON film_replacements FOR EACH ROW EXECUTE FUNCTION keep_history();--> statement-breakpoint
CREATE TRIGGER renders_tell AFTER INSERT OR UPDATE ON renders FOR EACH ROW EXECUTE FUNCTION tell_lesson();