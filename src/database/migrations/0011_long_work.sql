CREATE TABLE "job_pieces" (
	"org" uuid NOT NULL,
	"job" uuid NOT NULL,
	"n" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "job_pieces_org_job_n_pk" PRIMARY KEY("org","job","n")
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"asked" jsonb NOT NULL,
	"by" uuid NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"state" text NOT NULL,
	"step" text DEFAULT '' NOT NULL,
	"done" bigint DEFAULT 0 NOT NULL,
	"of" bigint DEFAULT 0 NOT NULL,
	"bytes" bigint DEFAULT 0 NOT NULL,
	"result" jsonb,
	"trouble" text,
	"held_by" uuid,
	"beat" timestamp with time zone,
	"tries" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "jobs_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
ALTER TABLE "job_pieces" ADD CONSTRAINT "job_pieces_org_job_jobs_org_id_fk" FOREIGN KEY ("org","job") REFERENCES "public"."jobs"("org","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_org_by_people_org_id_fk" FOREIGN KEY ("org","by") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "jobs_under_way" ON "jobs" USING btree ("org") WHERE state in ('uploading', 'waiting', 'running');--> statement-breakpoint
CREATE INDEX "jobs_to_do" ON "jobs" USING btree ("made") WHERE state in ('waiting', 'running');--> statement-breakpoint
ALTER TABLE job_pieces ALTER COLUMN bytes SET STORAGE EXTERNAL;
--> statement-breakpoint
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['jobs', 'job_pieces'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format('CREATE POLICY own_organisation ON %I TO vast_app USING (org = nullif(current_setting(''app.org'', true), '''')::uuid) WITH CHECK (org = nullif(current_setting(''app.org'', true), '''')::uuid)', t);
    EXECUTE format('GRANT SELECT, INSERT, DELETE ON %I TO vast_app', t);
  END LOOP;
END $$;
--> statement-breakpoint
GRANT UPDATE (state, step, done, of, bytes, result, trouble, beat) ON jobs TO vast_app;
--> statement-breakpoint
GRANT SELECT, UPDATE, DELETE ON jobs TO vast_lookup;
--> statement-breakpoint
CREATE POLICY lookup ON jobs TO vast_lookup USING (true) WITH CHECK (true);
--> statement-breakpoint
-- The oldest job that waits, or whose server has not been heard of for so long, is the asking server's now. Each goes to one.
CREATE FUNCTION take_job(server uuid, silent interval) RETURNS TABLE (org uuid, job uuid)
  LANGUAGE sql SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$
  UPDATE public.jobs j SET state = 'running', held_by = server, beat = clock_timestamp(), tries = j.tries + 1
  FROM (
    SELECT w.org, w.id FROM public.jobs w
    WHERE w.state = 'waiting' OR (w.state = 'running' AND w.beat < clock_timestamp() - silent)
    ORDER BY w.made LIMIT 1 FOR UPDATE SKIP LOCKED
  ) next
  WHERE j.org = next.org AND j.id = next.id
  RETURNING j.org, j.id
  $$;
--> statement-breakpoint
-- What was asked for before a time and is not worked on goes, and its file with it.
CREATE FUNCTION forget_jobs(before timestamptz) RETURNS TABLE (gone bigint)
  LANGUAGE sql SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$
  WITH old AS (DELETE FROM public.jobs j WHERE j.made < before AND j.state NOT IN ('waiting', 'running') RETURNING 1)
  SELECT count(*) FROM old
  $$;
--> statement-breakpoint
DO $$
DECLARE f text;
BEGIN
  GRANT CREATE ON SCHEMA public TO vast_lookup;
  FOREACH f IN ARRAY ARRAY['take_job(uuid, interval)', 'forget_jobs(timestamptz)'] LOOP
    EXECUTE format('ALTER FUNCTION %s OWNER TO vast_lookup', f);
    EXECUTE format('REVOKE ALL ON FUNCTION %s FROM PUBLIC', f);
    EXECUTE format('GRANT EXECUTE ON FUNCTION %s TO vast_app', f);
  END LOOP;
  REVOKE CREATE ON SCHEMA public FROM vast_lookup;
END $$;
