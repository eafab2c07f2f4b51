-- Cabinet, visits and outbox stand under the same rules: own organisation only; logs and sent messages append-only.
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['kit', 'kit_log', 'visits', 'outbox'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format(
      'CREATE POLICY own_organisation ON %I TO vast_app USING (org = nullif(current_setting(''app.org'', true), '''')::uuid) WITH CHECK (org = nullif(current_setting(''app.org'', true), '''')::uuid)', t);
    EXECUTE format('GRANT SELECT, INSERT ON %I TO vast_app', t);
  END LOOP;
END $$;
--> statement-breakpoint
GRANT UPDATE (name, facts) ON kit TO vast_app;
--> statement-breakpoint
GRANT UPDATE (day, version, facts) ON visits TO vast_app;
--> statement-breakpoint
GRANT UPDATE (name, address, customer) ON sites TO vast_app;
--> statement-breakpoint
CREATE TRIGGER kit_log_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON kit_log FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER outbox_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON outbox FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
