-- Watches stand under the same rules: own organisation only; what was read is append-only. The link is looked up by its hash.
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['watches', 'watch_entries'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format(
      'CREATE POLICY own_organisation ON %I TO vast_app USING (org = nullif(current_setting(''app.org'', true), '''')::uuid) WITH CHECK (org = nullif(current_setting(''app.org'', true), '''')::uuid)', t);
    EXECUTE format('GRANT SELECT, INSERT ON %I TO vast_app', t);
  END LOOP;
END $$;
--> statement-breakpoint
GRANT UPDATE (token_hash, token_made) ON watches TO vast_app;
--> statement-breakpoint
CREATE TRIGGER watch_entries_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON watch_entries FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
GRANT SELECT (org, id, token_hash) ON watches TO vast_lookup;
--> statement-breakpoint
CREATE POLICY lookup ON watches FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
CREATE FUNCTION find_watch_link(wanted text) RETURNS TABLE (org uuid, id uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT w.org, w.id FROM public.watches w WHERE w.token_hash = wanted $$;
--> statement-breakpoint
DO $$
BEGIN
  GRANT CREATE ON SCHEMA public TO vast_lookup;
  ALTER FUNCTION find_watch_link(text) OWNER TO vast_lookup;
  REVOKE ALL ON FUNCTION find_watch_link(text) FROM PUBLIC;
  GRANT EXECUTE ON FUNCTION find_watch_link(text) TO vast_app;
  REVOKE CREATE ON SCHEMA public FROM vast_lookup;
END $$;
