-- Row-level security: the application's role sees and writes only rows of the organisation set for the transaction.
DO $$
DECLARE t text;
BEGIN
  FOR t IN SELECT tablename FROM pg_tables WHERE schemaname = 'public' LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    IF EXISTS (SELECT 1 FROM information_schema.columns WHERE table_schema = 'public' AND table_name = t AND column_name = 'org') THEN
      EXECUTE format(
        'CREATE POLICY own_organisation ON %I TO vast_app USING (org = nullif(current_setting(''app.org'', true), '''')::uuid) WITH CHECK (org = nullif(current_setting(''app.org'', true), '''')::uuid)', t);
      EXECUTE format('GRANT SELECT, INSERT ON %I TO vast_app', t);
    END IF;
  END LOOP;
END $$;
--> statement-breakpoint
GRANT UPDATE (revoked) ON sessions TO vast_app;
--> statement-breakpoint
GRANT UPDATE (revoked) ON public_links TO vast_app;
--> statement-breakpoint
GRANT UPDATE (last, last_hash) ON counters TO vast_app;
--> statement-breakpoint
GRANT UPDATE (token_hash, made) ON gauge_links TO vast_app;
--> statement-breakpoint
GRANT UPDATE (name, facts) ON systems, gauges TO vast_app;
--> statement-breakpoint
GRANT USAGE ON SCHEMA public TO vast_app, vast_lookup;
--> statement-breakpoint
-- Logs and seals are append-only for everybody, the owner of the tables included.
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% is append-only: rows of it are never changed or removed', TG_TABLE_NAME USING ERRCODE = 'insufficient_privilege';
END $$;
--> statement-breakpoint
CREATE TRIGGER events_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON events FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER seals_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON seals FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER runs_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON runs FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER packs_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON packs FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER audit_log_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON audit_log FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
-- Look-ups that must happen before an organisation is known. vast_lookup cannot log in; it sees just these tables.
GRANT SELECT (org, id, name, email, role, password_hash) ON people TO vast_lookup;
--> statement-breakpoint
GRANT SELECT (org, person, id, token_hash, expires, revoked) ON sessions TO vast_lookup;
--> statement-breakpoint
GRANT SELECT (org, run, token, revoked) ON public_links TO vast_lookup;
--> statement-breakpoint
GRANT SELECT (org, run, gauge, code_hash, token_hash, simulated) ON gauge_links TO vast_lookup;
--> statement-breakpoint
GRANT SELECT, INSERT, DELETE ON sign_in_attempts TO vast_lookup;
--> statement-breakpoint
CREATE POLICY lookup ON people FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
CREATE POLICY lookup ON sessions FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
CREATE POLICY lookup ON public_links FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
CREATE POLICY lookup ON gauge_links FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
CREATE POLICY lookup ON sign_in_attempts TO vast_lookup USING (true) WITH CHECK (true);
--> statement-breakpoint
CREATE FUNCTION find_person(wanted text) RETURNS TABLE (org uuid, id uuid, password_hash text)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT p.org, p.id, p.password_hash FROM public.people p WHERE p.email = lower(wanted) $$;
--> statement-breakpoint
CREATE FUNCTION find_session(wanted text, moment timestamptz) RETURNS TABLE (org uuid, id uuid, person uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT s.org, s.id, s.person FROM public.sessions s WHERE s.token_hash = wanted AND s.revoked IS NULL AND s.expires > moment $$;
--> statement-breakpoint
CREATE FUNCTION find_public_link(wanted text) RETURNS TABLE (org uuid, run uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT l.org, l.run FROM public.public_links l WHERE l.token = wanted AND l.revoked IS NULL $$;
--> statement-breakpoint
CREATE FUNCTION find_gauge_code(wanted text) RETURNS TABLE (org uuid, run uuid, gauge uuid, simulated boolean)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT g.org, g.run, g.gauge, g.simulated FROM public.gauge_links g WHERE g.code_hash = wanted $$;
--> statement-breakpoint
CREATE FUNCTION find_gauge_token(wanted text) RETURNS TABLE (org uuid, run uuid, gauge uuid, simulated boolean)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT g.org, g.run, g.gauge, g.simulated FROM public.gauge_links g WHERE g.token_hash = wanted $$;
--> statement-breakpoint
CREATE FUNCTION count_attempts(wanted text, since timestamptz) RETURNS integer
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT count(*)::integer FROM public.sign_in_attempts a WHERE a.key = wanted AND a.at > since $$;
--> statement-breakpoint
CREATE FUNCTION note_attempt(wanted text, moment timestamptz) RETURNS void
  LANGUAGE sql SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ DELETE FROM public.sign_in_attempts a WHERE a.at < moment - interval '1 day'; INSERT INTO public.sign_in_attempts (key, at) VALUES (wanted, moment) $$;
--> statement-breakpoint
CREATE FUNCTION forget_attempts(wanted text) RETURNS void
  LANGUAGE sql SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ DELETE FROM public.sign_in_attempts a WHERE a.key = wanted $$;
--> statement-breakpoint
DO $$
DECLARE f text;
BEGIN
  GRANT CREATE ON SCHEMA public TO vast_lookup;
  FOREACH f IN ARRAY ARRAY['find_person(text)', 'find_session(text, timestamptz)', 'find_public_link(text)', 'find_gauge_code(text)', 'find_gauge_token(text)', 'count_attempts(text, timestamptz)', 'note_attempt(text, timestamptz)', 'forget_attempts(text)'] LOOP
    EXECUTE format('ALTER FUNCTION %s OWNER TO vast_lookup', f);
    EXECUTE format('REVOKE ALL ON FUNCTION %s FROM PUBLIC', f);
    EXECUTE format('GRANT EXECUTE ON FUNCTION %s TO vast_app', f);
  END LOOP;
  REVOKE CREATE ON SCHEMA public FROM vast_lookup;
END $$;
