CREATE TABLE "known_devices" (
	"org" uuid NOT NULL,
	"person" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"made" timestamp with time zone NOT NULL,
	CONSTRAINT "known_devices_org_person_token_hash_pk" PRIMARY KEY("org","person","token_hash")
);
--> statement-breakpoint
CREATE TABLE "passkeys" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"person" uuid NOT NULL,
	"credential" text NOT NULL,
	"public_key" "bytea" NOT NULL,
	"counter" bigint NOT NULL,
	"name" text NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"used" timestamp with time zone,
	"ended" timestamp with time zone,
	CONSTRAINT "passkeys_org_id_pk" PRIMARY KEY("org","id"),
	CONSTRAINT "passkeys_credential_unique" UNIQUE("credential")
);
--> statement-breakpoint
CREATE TABLE "anchors" (
	"org" uuid NOT NULL,
	"day" text NOT NULL,
	"number" text NOT NULL,
	"line" text NOT NULL,
	"made" timestamp with time zone NOT NULL,
	CONSTRAINT "anchors_org_day_pk" PRIMARY KEY("org","day")
);
--> statement-breakpoint
ALTER TABLE "outside_records" DROP CONSTRAINT "outside_records_hash";--> statement-breakpoint
ALTER TABLE "audit_log" ADD COLUMN "brought_in" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "organisations" ADD COLUMN "anchor_token" text;--> statement-breakpoint
ALTER TABLE "organisations" ADD COLUMN "anchor_to" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "used" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "seals" ADD COLUMN "brought_in" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "signing_keys" ADD COLUMN "brought_in" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "known_devices" ADD CONSTRAINT "known_devices_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "passkeys" ADD CONSTRAINT "passkeys_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "anchors" ADD CONSTRAINT "anchors_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "known_devices_token" ON "known_devices" USING btree ("token_hash");--> statement-breakpoint
CREATE INDEX "outside_records_hash" ON "outside_records" USING btree ("org","hash");--> statement-breakpoint
ALTER TABLE "organisations" ADD CONSTRAINT "organisations_anchor_token_unique" UNIQUE("anchor_token");
--> statement-breakpoint
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['known_devices', 'passkeys', 'anchors'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format('CREATE POLICY own_organisation ON %I TO vast_app USING (org = nullif(current_setting(''app.org'', true), '''')::uuid) WITH CHECK (org = nullif(current_setting(''app.org'', true), '''')::uuid)', t);
    EXECUTE format('GRANT SELECT, INSERT ON %I TO vast_app', t);
  END LOOP;
END $$;
--> statement-breakpoint
GRANT DELETE ON known_devices TO vast_app;
--> statement-breakpoint
GRANT UPDATE (used) ON sessions TO vast_app;
--> statement-breakpoint
GRANT UPDATE (counter, used, ended, name) ON passkeys TO vast_app;
--> statement-breakpoint
GRANT UPDATE (anchor_token, anchor_to) ON organisations TO vast_app;
--> statement-breakpoint
CREATE TRIGGER passkeys_stay_ended BEFORE UPDATE ON passkeys FOR EACH ROW EXECUTE FUNCTION refuse_undoing('ended');
--> statement-breakpoint
GRANT SELECT (made, used) ON sessions TO vast_lookup;
--> statement-breakpoint
GRANT SELECT ON known_devices TO vast_lookup;
--> statement-breakpoint
GRANT SELECT (org, id, person, credential, public_key, counter, ended) ON passkeys TO vast_lookup;
--> statement-breakpoint
GRANT SELECT (anchor_token) ON organisations TO vast_lookup;
--> statement-breakpoint
CREATE POLICY lookup ON known_devices FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
CREATE POLICY lookup ON passkeys FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
-- A session ends by its date, and by lying idle since a moment.
DROP FUNCTION find_session(text, timestamptz);
--> statement-breakpoint
CREATE FUNCTION find_session(wanted text, moment timestamptz, idle timestamptz) RETURNS TABLE (org uuid, id uuid, person uuid, used timestamptz)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$ SELECT s.org, s.id, s.person, coalesce(s.used, s.made) FROM public.sessions s
        WHERE s.token_hash = wanted AND s.revoked IS NULL AND s.expires > moment AND coalesce(s.used, s.made) > idle $$;
--> statement-breakpoint
-- An attempt is counted for its address and for its client, or, on a device on which this person signed in before, for that
-- device alone: guessing elsewhere locks nobody out of their own phone.
DROP FUNCTION try_sign_in(text, timestamptz, timestamptz, integer);
--> statement-breakpoint
CREATE FUNCTION try_sign_in(wanted text, device text, client text, moment timestamptz, since timestamptz, most integer, most_client integer)
  RETURNS TABLE (allowed boolean, counted text, org uuid, id uuid, password_hash text)
  LANGUAGE plpgsql SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$
DECLARE
  own_key text := lower(wanted);
  client_key text := 'client ' || client;
  by_client boolean;
BEGIN
  IF EXISTS (SELECT 1 FROM public.known_devices d JOIN public.people p ON p.org = d.org AND p.id = d.person
             WHERE d.token_hash = device AND p.email = lower(wanted) AND p."left" IS NULL) THEN
    own_key := 'device ' || device || ' ' || lower(wanted);
    by_client := false;
  ELSE
    by_client := client <> '';
  END IF;
  PERFORM pg_advisory_xact_lock(hashtextextended('sign-in ' || own_key, 0));
  IF by_client THEN PERFORM pg_advisory_xact_lock(hashtextextended('sign-in ' || client_key, 0)); END IF;
  IF (SELECT count(*) FROM public.sign_in_attempts a WHERE a.key = own_key AND a.at > since) >= most
     OR (by_client AND (SELECT count(*) FROM public.sign_in_attempts a WHERE a.key = client_key AND a.at > since) >= most_client) THEN
    RETURN QUERY SELECT false, own_key, NULL::uuid, NULL::uuid, NULL::text;
    RETURN;
  END IF;
  DELETE FROM public.sign_in_attempts a WHERE a.at < moment - interval '1 day';
  INSERT INTO public.sign_in_attempts (key, at) VALUES (own_key, moment);
  IF by_client THEN INSERT INTO public.sign_in_attempts (key, at) VALUES (client_key, moment); END IF;
  RETURN QUERY SELECT true, own_key, p.org, p.id, p.password_hash
    FROM (SELECT 1) one LEFT JOIN public.people p ON p.email = lower(wanted) AND p."left" IS NULL;
END $$;
--> statement-breakpoint
-- A sign-in that succeeded: the failures of its address or device are over; its client is given back this one attempt.
DROP FUNCTION forget_attempts(text);
--> statement-breakpoint
CREATE FUNCTION forget_attempts(counted text, client text, moment timestamptz) RETURNS void
  LANGUAGE sql SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$
  DELETE FROM public.sign_in_attempts a WHERE a.key = counted;
  DELETE FROM public.sign_in_attempts a WHERE a.ctid = (SELECT b.ctid FROM public.sign_in_attempts b WHERE b.key = 'client ' || client AND b.at = moment LIMIT 1);
$$;
--> statement-breakpoint
CREATE FUNCTION find_passkey(wanted text) RETURNS TABLE (org uuid, id uuid, person uuid, public_key bytea, counter bigint)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$ SELECT k.org, k.id, k.person, k.public_key, k.counter FROM public.passkeys k JOIN public.people p ON p.org = k.org AND p.id = k.person
        WHERE k.credential = wanted AND k.ended IS NULL AND p."left" IS NULL $$;
--> statement-breakpoint
CREATE FUNCTION find_anchors(wanted text) RETURNS TABLE (org uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$ SELECT o.org FROM public.organisations o WHERE o.anchor_token = wanted $$;
--> statement-breakpoint
-- The application cannot put a key among the published ones as it likes: a new one signs from now on and retires the one
-- before; one that came from elsewhere is retired and marked.
REVOKE INSERT, UPDATE ON signing_keys FROM vast_app;
--> statement-breakpoint
REVOKE UPDATE (retired) ON signing_keys FROM vast_app;
--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE ON signing_keys TO vast_lookup;
--> statement-breakpoint
CREATE POLICY lookup ON signing_keys TO vast_lookup USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
CREATE FUNCTION new_signing_key(key text, sealed text, moment timestamptz) RETURNS void
  LANGUAGE plpgsql SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$
DECLARE mine uuid := nullif(current_setting('app.org', true), '')::uuid;
BEGIN
  IF coalesce(sealed, '') = '' THEN RAISE EXCEPTION 'a key that signs has its secret' USING ERRCODE = 'check_violation'; END IF;
  UPDATE public.signing_keys k SET retired = moment WHERE k.org = mine AND k.retired IS NULL;
  INSERT INTO public.signing_keys (org, public_key, sealed_secret, made) VALUES (mine, key, sealed, moment);
END $$;
--> statement-breakpoint
CREATE FUNCTION bring_in_key(key text, made_then timestamptz, retired_then timestamptz, moment timestamptz) RETURNS void
  LANGUAGE sql SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$
  INSERT INTO public.signing_keys (org, public_key, sealed_secret, made, retired, brought_in)
  VALUES (nullif(current_setting('app.org', true), '')::uuid, key, NULL, made_then, coalesce(retired_then, moment), moment) ON CONFLICT DO NOTHING
$$;
--> statement-breakpoint
DO $$
DECLARE f text;
BEGIN
  GRANT CREATE ON SCHEMA public TO vast_lookup;
  FOREACH f IN ARRAY ARRAY['find_session(text, timestamptz, timestamptz)', 'try_sign_in(text, text, text, timestamptz, timestamptz, integer, integer)', 'forget_attempts(text, text, timestamptz)', 'find_passkey(text)', 'find_anchors(text)', 'new_signing_key(text, text, timestamptz)', 'bring_in_key(text, timestamptz, timestamptz, timestamptz)'] LOOP
    EXECUTE format('ALTER FUNCTION %s OWNER TO vast_lookup', f);
    EXECUTE format('REVOKE ALL ON FUNCTION %s FROM PUBLIC', f);
    EXECUTE format('GRANT EXECUTE ON FUNCTION %s TO vast_app', f);
  END LOOP;
  REVOKE CREATE ON SCHEMA public FROM vast_lookup;
END $$;
