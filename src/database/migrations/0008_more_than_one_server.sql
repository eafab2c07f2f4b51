CREATE TABLE "turns" (
	"key" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "open_runs" (
	"org" uuid NOT NULL,
	"run" uuid NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"practice" boolean NOT NULL,
	"shows" uuid,
	CONSTRAINT "open_runs_org_run_pk" PRIMARY KEY("org","run")
);
--> statement-breakpoint
CREATE TABLE "paired_gauges" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"gauge" uuid NOT NULL,
	"code_hash" text,
	"code_expires" timestamp with time zone NOT NULL,
	"token_hash" text,
	"made" timestamp with time zone NOT NULL,
	"made_by" uuid NOT NULL,
	"paired" timestamp with time zone,
	"device" text NOT NULL,
	"ended" timestamp with time zone,
	CONSTRAINT "paired_gauges_org_id_pk" PRIMARY KEY("org","id"),
	CONSTRAINT "paired_gauges_code_hash_unique" UNIQUE("code_hash"),
	CONSTRAINT "paired_gauges_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
ALTER TABLE "open_runs" ADD CONSTRAINT "open_runs_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "paired_gauges" ADD CONSTRAINT "paired_gauges_org_made_by_people_org_id_fk" FOREIGN KEY ("org","made_by") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "turns_key" ON "turns" USING btree ("key","at");--> statement-breakpoint
CREATE INDEX "turns_at" ON "turns" USING btree ("at");--> statement-breakpoint
CREATE INDEX "open_runs_made" ON "open_runs" USING btree ("org","made");--> statement-breakpoint
CREATE INDEX "open_runs_shows" ON "open_runs" USING btree ("org","shows");--> statement-breakpoint
CREATE INDEX "paired_gauges_gauge" ON "paired_gauges" USING btree ("org","gauge");--> statement-breakpoint
-- What is let through is counted and noted in one step, whichever server asks: a limit of one is a thing that serves once.
CREATE FUNCTION take_turn(wanted text, moment timestamptz, since timestamptz, most integer) RETURNS boolean
  LANGUAGE plpgsql SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$
BEGIN
  PERFORM pg_advisory_xact_lock(hashtextextended('turn ' || wanted, 0));
  IF (SELECT count(*) FROM public.turns t WHERE t.key = wanted AND t.at > since) >= most THEN
    RETURN false;
  END IF;
  DELETE FROM public.turns t WHERE t.at < moment - interval '1 day';
  INSERT INTO public.turns (key, at) VALUES (wanted, moment);
  RETURN true;
END $$;
--> statement-breakpoint
GRANT SELECT, INSERT, DELETE ON turns TO vast_lookup;
--> statement-breakpoint
ALTER TABLE turns ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE turns FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY lookup ON turns TO vast_lookup USING (true) WITH CHECK (true);
--> statement-breakpoint
ALTER TABLE paired_gauges ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE paired_gauges FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON paired_gauges TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
CREATE POLICY lookup ON paired_gauges FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
GRANT SELECT, INSERT ON paired_gauges TO vast_app;
--> statement-breakpoint
GRANT UPDATE (code_hash, token_hash, paired, device, ended) ON paired_gauges TO vast_app;
--> statement-breakpoint
GRANT SELECT (org, id, gauge, code_hash, code_expires, token_hash, ended) ON paired_gauges TO vast_lookup;
--> statement-breakpoint
CREATE TRIGGER paired_gauges_stay_ended BEFORE UPDATE ON paired_gauges FOR EACH ROW EXECUTE FUNCTION refuse_undoing('ended');
--> statement-breakpoint
CREATE FUNCTION find_paired_code(wanted text, moment timestamptz) RETURNS TABLE (org uuid, id uuid, gauge uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$ SELECT g.org, g.id, g.gauge FROM public.paired_gauges g WHERE g.code_hash = wanted AND g.ended IS NULL AND g.code_expires > moment $$;
--> statement-breakpoint
CREATE FUNCTION find_gauge(wanted text) RETURNS TABLE (org uuid, gauge uuid, run uuid, simulated boolean)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$
    SELECT g.org, g.gauge, g.run, g.simulated FROM public.gauge_links g WHERE g.token_hash = wanted
    UNION ALL
    SELECT p.org, p.gauge, NULL::uuid, false FROM public.paired_gauges p WHERE p.token_hash = wanted AND p.ended IS NULL
  $$;
--> statement-breakpoint
DROP FUNCTION find_gauge_token(text);
--> statement-breakpoint
DO $$
DECLARE f text;
BEGIN
  GRANT CREATE ON SCHEMA public TO vast_lookup;
  FOREACH f IN ARRAY ARRAY['take_turn(text, timestamptz, timestamptz, integer)', 'find_paired_code(text, timestamptz)', 'find_gauge(text)'] LOOP
    EXECUTE format('ALTER FUNCTION %s OWNER TO vast_lookup', f);
    EXECUTE format('REVOKE ALL ON FUNCTION %s FROM PUBLIC', f);
    EXECUTE format('GRANT EXECUTE ON FUNCTION %s TO vast_app', f);
  END LOOP;
  REVOKE CREATE ON SCHEMA public FROM vast_lookup;
END $$;
--> statement-breakpoint
ALTER TABLE open_runs ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE open_runs FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON open_runs TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT, DELETE ON open_runs TO vast_app;
--> statement-breakpoint
GRANT UPDATE (shows) ON open_runs TO vast_app;
--> statement-breakpoint
-- A run is open from its beginning until it is sealed: written here, so that no way of writing a run can forget it.
CREATE FUNCTION run_begins() RETURNS trigger LANGUAGE plpgsql SET search_path = pg_catalog, public, pg_temp AS $$
BEGIN
  INSERT INTO public.open_runs (org, run, made, practice, shows)
  SELECT NEW.org, NEW.id, NEW.made, NEW.practice, (NEW.plan->>'gaugeMeant')::uuid
  WHERE NOT EXISTS (SELECT 1 FROM public.seals s WHERE s.org = NEW.org AND s.run = NEW.id);
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION run_is_sealed() RETURNS trigger LANGUAGE plpgsql SET search_path = pg_catalog, public, pg_temp AS $$
BEGIN
  DELETE FROM public.open_runs o WHERE o.org = NEW.org AND o.run = NEW.run;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER runs_begin AFTER INSERT ON runs FOR EACH ROW EXECUTE FUNCTION run_begins();
--> statement-breakpoint
CREATE TRIGGER seals_end_runs AFTER INSERT ON seals FOR EACH ROW EXECUTE FUNCTION run_is_sealed();
--> statement-breakpoint
-- Made once from what there is: the owner is under row-level security too, so it is lifted for the length of this statement.
DO $$
BEGIN
  ALTER TABLE runs NO FORCE ROW LEVEL SECURITY;
  ALTER TABLE seals NO FORCE ROW LEVEL SECURITY;
  ALTER TABLE open_runs NO FORCE ROW LEVEL SECURITY;
  INSERT INTO open_runs (org, run, made, practice, shows)
  SELECT r.org, r.id, r.made, r.practice, NULL
  FROM runs r WHERE NOT EXISTS (SELECT 1 FROM seals s WHERE s.org = r.org AND s.run = r.id);
  ALTER TABLE runs FORCE ROW LEVEL SECURITY;
  ALTER TABLE seals FORCE ROW LEVEL SECURITY;
  ALTER TABLE open_runs FORCE ROW LEVEL SECURITY;
END $$;
--> statement-breakpoint
-- A batch that a gauge streams, in one step: nothing but streams came since the place that was seen, or nothing is written. The lock
-- is the one under which every entry of a run is placed and under which it is sealed.
CREATE FUNCTION append_stream(own uuid, of_run uuid, entry uuid, seen integer, received_ms bigint, entry_body jsonb)
  RETURNS TABLE (outcome text, place integer)
  LANGUAGE plpgsql SET search_path = pg_catalog, public, pg_temp
  AS $$
DECLARE
  known record;
  other boolean;
  top integer;
BEGIN
  -- a statement by itself is a transaction: it sees this organisation alone, as everything else does
  PERFORM set_config('app.org', own::text, true);
  PERFORM pg_advisory_xact_lock(hashtextextended(own::text || of_run::text, 0));
  SELECT e.run, e.position INTO known FROM public.events e WHERE e.org = own AND e.id = entry;
  IF FOUND THEN
    RETURN QUERY SELECT CASE WHEN known.run = of_run THEN 'known' ELSE 'taken' END, known.position;
    RETURN;
  END IF;
  IF EXISTS (SELECT 1 FROM public.seals s WHERE s.org = own AND s.run = of_run) THEN
    RETURN QUERY SELECT 'sealed'::text, NULL::integer;
    RETURN;
  END IF;
  SELECT bool_or(e.body->>'kind' <> 'stream'), max(e.position) INTO other, top
    FROM public.events e WHERE e.org = own AND e.run = of_run AND e.position > seen;
  IF other THEN
    RETURN QUERY SELECT 'moved'::text, top;
    RETURN;
  END IF;
  INSERT INTO public.events (org, run, id, position, received, body)
    VALUES (own, of_run, entry, coalesce(top, seen) + 1, received_ms, entry_body);
  RETURN QUERY SELECT 'placed'::text, coalesce(top, seen) + 1;
END $$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION append_stream(uuid, uuid, uuid, integer, bigint, jsonb) FROM PUBLIC;
--> statement-breakpoint
GRANT EXECUTE ON FUNCTION append_stream(uuid, uuid, uuid, integer, bigint, jsonb) TO vast_app;
