CREATE TABLE "push_devices" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"person" uuid NOT NULL,
	"session" uuid NOT NULL,
	"endpoint" text NOT NULL,
	"p256dh" text NOT NULL,
	"auth" text NOT NULL,
	"minutes" jsonb NOT NULL,
	"made" timestamp with time zone NOT NULL,
	CONSTRAINT "push_devices_org_id_pk" PRIMARY KEY("org","id"),
	CONSTRAINT "push_devices_endpoint" UNIQUE("org","endpoint")
);
--> statement-breakpoint
CREATE TABLE "rung" (
	"org" uuid NOT NULL,
	"device" uuid NOT NULL,
	"tag" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "rung_org_device_tag_pk" PRIMARY KEY("org","device","tag")
);
--> statement-breakpoint
ALTER TABLE "organisations" ADD COLUMN "packs_aside" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "push_devices" ADD CONSTRAINT "push_devices_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "push_devices" ADD CONSTRAINT "push_devices_org_session_sessions_org_id_fk" FOREIGN KEY ("org","session") REFERENCES "public"."sessions"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rung" ADD CONSTRAINT "rung_org_device_push_devices_org_id_fk" FOREIGN KEY ("org","device") REFERENCES "public"."push_devices"("org","id") ON DELETE cascade ON UPDATE no action;
--> statement-breakpoint
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['push_devices', 'rung'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format('CREATE POLICY own_organisation ON %I TO vast_app USING (org = nullif(current_setting(''app.org'', true), '''')::uuid) WITH CHECK (org = nullif(current_setting(''app.org'', true), '''')::uuid)', t);
    EXECUTE format('GRANT SELECT, INSERT, DELETE ON %I TO vast_app', t);
  END LOOP;
END $$;
--> statement-breakpoint
GRANT UPDATE (person, session, p256dh, auth, minutes) ON push_devices TO vast_app;
--> statement-breakpoint
GRANT UPDATE (packs_aside) ON organisations TO vast_app;
--> statement-breakpoint
GRANT SELECT (org) ON push_devices TO vast_lookup;
--> statement-breakpoint
CREATE POLICY lookup ON push_devices FOR SELECT TO vast_lookup USING (true);
--> statement-breakpoint
-- Which organisations have a device that can be rung: the server's timers look there, each behind its own wall.
CREATE FUNCTION find_ringing() RETURNS TABLE (org uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public, pg_temp
  AS $$ SELECT DISTINCT d.org FROM public.push_devices d $$;
--> statement-breakpoint
DO $$
BEGIN
  GRANT CREATE ON SCHEMA public TO vast_lookup;
  ALTER FUNCTION find_ringing() OWNER TO vast_lookup;
  REVOKE ALL ON FUNCTION find_ringing() FROM PUBLIC;
  GRANT EXECUTE ON FUNCTION find_ringing() TO vast_app;
  REVOKE CREATE ON SCHEMA public FROM vast_lookup;
END $$;
