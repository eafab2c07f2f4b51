-- Text as it is compared when something is looked for: accents, capitals and punctuation do not count.
CREATE FUNCTION compact_text(t text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE
  AS $$
    SELECT regexp_replace(
      replace(replace(replace(replace(
        translate(lower(regexp_replace(normalize(t, NFKD), '[\u0300-\u036f]', '', 'g')), 'øłđðı', 'olddi'),
        'æ', 'ae'), 'œ', 'oe'), 'ß', 'ss'), 'þ', 'th'),
      '[^[:alnum:]]+', '', 'g')
  $$;
--> statement-breakpoint
-- Everything that stands on plates in an installation, drawn or listed, so that none is opened to look for one.
CREATE FUNCTION plates_of(facts jsonb) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE
  AS $$
    SELECT coalesce(string_agg(public.compact_text(concat_ws(' ', p.name, p.make)) || ' ' || public.compact_text(p.model) || ' ' || public.compact_text(p.serial), ' '), '')
    FROM (
      SELECT d->>'name' AS name, coalesce(d->'facts'->>'make', '') AS make, coalesce(d->'facts'->>'model', '') AS model,
        coalesce(d->'facts'->>'serial', '') AS serial
      FROM jsonb_array_elements(CASE jsonb_typeof(facts->'network'->'parts') WHEN 'array' THEN facts->'network'->'parts' ELSE '[]' END) d
      UNION ALL
      SELECT l->>'name', coalesce(l->>'make', ''), coalesce(l->>'model', ''), coalesce(l->>'serial', '')
      FROM jsonb_array_elements(
        CASE jsonb_typeof(facts->'appliances') WHEN 'array' THEN facts->'appliances' ELSE '[]' END
        || CASE jsonb_typeof(facts->'meter') WHEN 'object' THEN jsonb_build_array(facts->'meter') ELSE '[]' END) l
    ) p
    WHERE p.make <> '' OR p.model <> '' OR p.serial <> ''
  $$;
--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "search" text GENERATED ALWAYS AS (compact_text(name) || ' ' || compact_text(address) || ' ' || compact_text(customer)) STORED;--> statement-breakpoint
ALTER TABLE "systems" ADD COLUMN "search" text GENERATED ALWAYS AS (compact_text(name)) STORED;--> statement-breakpoint
ALTER TABLE "systems" ADD COLUMN "plates" text GENERATED ALWAYS AS (plates_of(facts)) STORED;--> statement-breakpoint
ALTER TABLE "sightings" ADD COLUMN "plates" text GENERATED ALWAYS AS (compact_text(search)) STORED;--> statement-breakpoint
CREATE INDEX "sites_name" ON "sites" USING btree ("org","name","id");--> statement-breakpoint
CREATE INDEX "systems_site" ON "systems" USING btree ("org","site","name");--> statement-breakpoint
CREATE INDEX "sightings_newest" ON "sightings" USING btree ("org","at" DESC NULLS LAST,"id" DESC NULLS LAST);