-- Findings are codes with parameters now; those told before keep their words.
UPDATE "hearings" SET "hearing" = jsonb_set("hearing", '{findings}', (
  SELECT coalesce(jsonb_agg((f - 'message') || jsonb_build_object('params', jsonb_build_object('asTold', f->'message')) ORDER BY n), '[]'::jsonb)
  FROM jsonb_array_elements("hearing"->'findings') WITH ORDINALITY AS x(f, n)
)) WHERE "hearing"->'findings' @? '$[*].message';--> statement-breakpoint
UPDATE "renders" SET "checks" = (
  SELECT coalesce(jsonb_agg((f - 'message' - 'kind' - 'at') || jsonb_build_object(
    'code', f->'kind', 'start', f->'at', 'severity', CASE f->>'severity' WHEN 'look' THEN 'risky' ELSE f->>'severity' END,
    'params', jsonb_build_object('asTold', f->'message')) ORDER BY n), '[]'::jsonb)
  FROM jsonb_array_elements("checks") WITH ORDINALITY AS x(f, n)
) WHERE "checks" @? '$[*].kind';
