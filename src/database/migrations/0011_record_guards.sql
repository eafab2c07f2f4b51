-- What lists need of a sealed record moves from the seals into the ledger, which can be made anew at any time. The owner
-- of the tables is under row-level security too: it steps out of it for the copy alone.
ALTER TABLE seals NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE runs NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
INSERT INTO ledger (org, id, source, number, word, status, at, site, system, procedure, tester, gauges, words, glyph, summary, figures)
SELECT s.org, s.run, 'own', s.number, s.word, s.status, s.sealed_at, r.plan->'site'->>'id', r.system, r.plan->'procedure'->>'id',
  s.summary->>'by', ARRAY(SELECT g->>'id' FROM jsonb_array_elements(r.plan->'gauges') g),
  array_to_tsvector(ARRAY(SELECT DISTINCT right(s.org::text, 6) || w FROM regexp_split_to_table(s.search, '[^[:alnum:]]+') w WHERE w <> '')),
  s.glyph, s.summary, '[]'::jsonb
FROM seals s JOIN runs r ON r.org = s.org AND r.id = s.run;
--> statement-breakpoint
ALTER TABLE seals FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE runs FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['invitations', 'prints', 'photo_parts', 'record_marks', 'ledger', 'outside_records', 'outside_photos', 'ledger_views', 'log_mappings', 'signature_links'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format(
      'CREATE POLICY own_organisation ON %I TO vast_app USING (org = nullif(current_setting(''app.org'', true), '''')::uuid) WITH CHECK (org = nullif(current_setting(''app.org'', true), '''')::uuid)', t);
    EXECUTE format('GRANT SELECT, INSERT ON %I TO vast_app', t);
  END LOOP;
  FOREACH t IN ARRAY ARRAY['prints', 'record_marks', 'outside_records', 'outside_photos'] LOOP
    EXECUTE format('CREATE TRIGGER %I BEFORE UPDATE OR DELETE OR TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()', t || '_append_only', t);
  END LOOP;
END $$;
--> statement-breakpoint
GRANT UPDATE (name, email, role, password_hash, licence_number, licence_until, "left") ON people TO vast_app;
--> statement-breakpoint
GRANT UPDATE (name, contact) ON organisations TO vast_app;
--> statement-breakpoint
GRANT UPDATE (retired) ON signing_keys TO vast_app;
--> statement-breakpoint
GRANT UPDATE (text, owner, due, closed_text) ON follow_ups TO vast_app;
--> statement-breakpoint
GRANT UPDATE (ended) ON invitations, signature_links TO vast_app;
--> statement-breakpoint
GRANT UPDATE, DELETE ON ledger TO vast_app;
--> statement-breakpoint
GRANT UPDATE (name, query, shared), DELETE ON ledger_views TO vast_app;
--> statement-breakpoint
GRANT UPDATE (mapping, used), DELETE ON log_mappings TO vast_app;
--> statement-breakpoint
GRANT DELETE ON photo_parts TO vast_app;
--> statement-breakpoint
GRANT SELECT ("left") ON people TO vast_lookup;
--> statement-breakpoint
GRANT SELECT (org, id, token_hash, expires, ended) ON invitations, signature_links TO vast_lookup;
--> statement-breakpoint
GRANT SELECT ON ledger TO vast_lookup;
--> statement-breakpoint
GRANT SELECT (org) ON organisations TO vast_lookup;
--> statement-breakpoint
CREATE POLICY lookup ON invitations FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
CREATE POLICY lookup ON signature_links FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
CREATE POLICY lookup ON ledger FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
CREATE POLICY lookup ON organisations FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
CREATE OR REPLACE FUNCTION find_person(wanted text) RETURNS TABLE (org uuid, id uuid, password_hash text)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT p.org, p.id, p.password_hash FROM public.people p WHERE p.email = lower(wanted) AND p."left" IS NULL $$;
--> statement-breakpoint
CREATE FUNCTION find_invitation(wanted text, moment timestamptz) RETURNS TABLE (org uuid, id uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT i.org, i.id FROM public.invitations i WHERE i.token_hash = wanted AND i.ended IS NULL AND i.expires > moment $$;
--> statement-breakpoint
CREATE FUNCTION find_signature_link(wanted text, moment timestamptz) RETURNS TABLE (org uuid, id uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT l.org, l.id FROM public.signature_links l WHERE l.token_hash = wanted AND l.ended IS NULL AND l.expires > moment $$;
--> statement-breakpoint
CREATE FUNCTION has_organisation() RETURNS boolean
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT EXISTS (SELECT 1 FROM public.organisations) $$;
--> statement-breakpoint
-- The ledger's search. Row-level security would keep the index of words from being used (its operator is not leakproof),
-- so this function runs as vast_lookup and itself shows only the organisation that is set for the transaction. What the
-- newest lines already answer is taken from them; only rarer words go through the index.
CREATE FUNCTION search_ledger(wanted jsonb, most integer) RETURNS SETOF ledger
  LANGUAGE plpgsql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$
DECLARE
  own uuid := nullif(current_setting('app.org', true), '')::uuid;
  words tsquery := nullif(wanted->>'words', '')::tsquery;
  cond text := 'l.org = $1';
  near integer;
BEGIN
  IF own IS NULL THEN RETURN; END IF;
  IF wanted ? 'word' THEN cond := cond || ' AND l.word = $2->>''word'''; END IF;
  IF wanted ? 'status' THEN cond := cond || ' AND l.status = $2->>''status'''; END IF;
  IF wanted ? 'source' THEN cond := cond || ' AND l.source = $2->>''source'''; END IF;
  IF wanted ? 'procedure' THEN cond := cond || ' AND l.procedure = $2->>''procedure'''; END IF;
  IF wanted ? 'tester' THEN cond := cond || ' AND l.tester = $2->>''tester'''; END IF;
  IF wanted ? 'system' THEN cond := cond || ' AND l.system = ($2->>''system'')::uuid'; END IF;
  IF wanted ? 'gauge' THEN cond := cond || ' AND ($2->>''gauge'') = ANY (l.gauges)'; END IF;
  IF wanted ? 'from' THEN cond := cond || ' AND l.at >= ($2->>''from'')::timestamptz'; END IF;
  IF wanted ? 'before' THEN cond := cond || ' AND l.at < ($2->>''before'')::timestamptz'; END IF;
  IF wanted ? 'after' THEN cond := cond || ' AND (l.at, l.id) < (($2->>''after'')::timestamptz, ($2->>''afterId'')::uuid)'; END IF;
  IF wanted->>'standing' = 'stands' THEN cond := cond || ' AND l.superseded IS NULL AND l.voided IS NULL'; END IF;
  IF wanted->>'standing' = 'superseded' THEN cond := cond || ' AND l.superseded IS NOT NULL'; END IF;
  IF wanted->>'standing' = 'void' THEN cond := cond || ' AND l.voided IS NOT NULL'; END IF;
  IF words IS NULL THEN
    RETURN QUERY EXECUTE 'SELECT l.* FROM public.ledger l WHERE ' || cond || ' ORDER BY l.at DESC NULLS LAST, l.id DESC NULLS LAST LIMIT $3' USING own, wanted, most;
    RETURN;
  END IF;
  EXECUTE 'SELECT count(*) FROM (SELECT l.words FROM public.ledger l WHERE ' || cond || ' ORDER BY l.at DESC NULLS LAST, l.id DESC NULLS LAST LIMIT 2000) n WHERE n.words @@ $3' INTO near USING own, wanted, words;
  IF near >= most THEN
    RETURN QUERY EXECUTE 'SELECT n.* FROM (SELECT l.* FROM public.ledger l WHERE ' || cond || ' ORDER BY l.at DESC NULLS LAST, l.id DESC NULLS LAST LIMIT 2000) n WHERE n.words @@ $3 ORDER BY n.at DESC, n.id DESC LIMIT $4' USING own, wanted, words, most;
  ELSE
    RETURN QUERY EXECUTE 'WITH hit AS MATERIALIZED (SELECT l.* FROM public.ledger l WHERE l.words @@ $3) SELECT l.* FROM hit l WHERE ' || cond || ' ORDER BY l.at DESC, l.id DESC LIMIT $4' USING own, wanted, words, most;
  END IF;
END $$;
--> statement-breakpoint
DO $$
DECLARE f text;
BEGIN
  GRANT CREATE ON SCHEMA public TO vast_lookup;
  FOREACH f IN ARRAY ARRAY['find_invitation(text, timestamptz)', 'find_signature_link(text, timestamptz)', 'has_organisation()', 'search_ledger(jsonb, integer)'] LOOP
    EXECUTE format('ALTER FUNCTION %s OWNER TO vast_lookup', f);
    EXECUTE format('REVOKE ALL ON FUNCTION %s FROM PUBLIC', f);
    EXECUTE format('GRANT EXECUTE ON FUNCTION %s TO vast_app', f);
  END LOOP;
  REVOKE CREATE ON SCHEMA public FROM vast_lookup;
END $$;
