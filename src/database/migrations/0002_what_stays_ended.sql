-- Look-ups that run as another role take nothing from a schema that anybody can write into: pg_temp comes last, and is not to be had.
DO $$
DECLARE f regprocedure;
BEGIN
  FOR f IN SELECT p.oid::regprocedure FROM pg_proc p JOIN pg_namespace n ON n.oid = p.pronamespace WHERE n.nspname = 'public' AND p.prosecdef LOOP
    EXECUTE format('ALTER FUNCTION %s SET search_path = pg_catalog, public, pg_temp', f);
  END LOOP;
  EXECUTE format('REVOKE TEMPORARY ON DATABASE %I FROM PUBLIC', current_database());
END $$;
--> statement-breakpoint
-- Who has an address, without the hash of the password.
DROP FUNCTION find_person(text);
--> statement-breakpoint
CREATE FUNCTION find_person(wanted text) RETURNS TABLE (org uuid, id uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$ SELECT p.org, p.id FROM public.people p WHERE p.email = lower(wanted) AND p."left" IS NULL $$;
--> statement-breakpoint
-- An attempt to sign in is counted and noted in one step, so that no two are made on one count. The hash is given for an
-- attempt that may be made, and for no other.
CREATE FUNCTION try_sign_in(wanted text, moment timestamptz, since timestamptz, most integer)
  RETURNS TABLE (allowed boolean, org uuid, id uuid, password_hash text)
  LANGUAGE plpgsql SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$
BEGIN
  PERFORM pg_advisory_xact_lock(hashtextextended('sign-in ' || wanted, 0));
  IF (SELECT count(*) FROM public.sign_in_attempts a WHERE a.key = wanted AND a.at > since) >= most THEN
    RETURN QUERY SELECT false, NULL::uuid, NULL::uuid, NULL::text;
    RETURN;
  END IF;
  DELETE FROM public.sign_in_attempts a WHERE a.at < moment - interval '1 day';
  INSERT INTO public.sign_in_attempts (key, at) VALUES (wanted, moment);
  RETURN QUERY SELECT true, p.org, p.id, p.password_hash
    FROM (SELECT 1) one LEFT JOIN public.people p ON p.email = lower(wanted) AND p."left" IS NULL;
END $$;
--> statement-breakpoint
DROP FUNCTION count_attempts(text, timestamptz);
--> statement-breakpoint
DROP FUNCTION note_attempt(text, timestamptz);
--> statement-breakpoint
DO $$
DECLARE f text;
BEGIN
  GRANT CREATE ON SCHEMA public TO vast_lookup;
  FOREACH f IN ARRAY ARRAY['find_person(text)', 'try_sign_in(text, timestamptz, timestamptz, integer)'] LOOP
    EXECUTE format('ALTER FUNCTION %s OWNER TO vast_lookup', f);
    EXECUTE format('REVOKE ALL ON FUNCTION %s FROM PUBLIC', f);
    EXECUTE format('GRANT EXECUTE ON FUNCTION %s TO vast_app', f);
  END LOOP;
  REVOKE CREATE ON SCHEMA public FROM vast_lookup;
END $$;
--> statement-breakpoint
-- What was ended stays ended, whoever asks: sessions, links, invitations, retired keys.
CREATE FUNCTION refuse_undoing() RETURNS trigger LANGUAGE plpgsql SET search_path = pg_catalog, public, pg_temp AS $$
BEGIN
  IF to_jsonb(OLD) -> TG_ARGV[0] <> 'null'::jsonb AND to_jsonb(NEW) -> TG_ARGV[0] IS DISTINCT FROM to_jsonb(OLD) -> TG_ARGV[0] THEN
    RAISE EXCEPTION '%.% was set and cannot be undone', TG_TABLE_NAME, TG_ARGV[0] USING ERRCODE = 'insufficient_privilege';
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER sessions_stay_revoked BEFORE UPDATE ON sessions FOR EACH ROW EXECUTE FUNCTION refuse_undoing('revoked');
--> statement-breakpoint
CREATE TRIGGER public_links_stay_revoked BEFORE UPDATE ON public_links FOR EACH ROW EXECUTE FUNCTION refuse_undoing('revoked');
--> statement-breakpoint
CREATE TRIGGER invitations_stay_ended BEFORE UPDATE ON invitations FOR EACH ROW EXECUTE FUNCTION refuse_undoing('ended');
--> statement-breakpoint
CREATE TRIGGER signature_links_stay_ended BEFORE UPDATE ON signature_links FOR EACH ROW EXECUTE FUNCTION refuse_undoing('ended');
--> statement-breakpoint
CREATE TRIGGER signing_keys_stay_retired BEFORE UPDATE ON signing_keys FOR EACH ROW EXECUTE FUNCTION refuse_undoing('retired');
