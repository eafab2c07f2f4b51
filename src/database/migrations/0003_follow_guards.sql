-- The new tables stand under the same rules as the others: own organisation only, sightings append-only.
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['sightings', 'follow_ups'] LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
    EXECUTE format(
      'CREATE POLICY own_organisation ON %I TO vast_app USING (org = nullif(current_setting(''app.org'', true), '''')::uuid) WITH CHECK (org = nullif(current_setting(''app.org'', true), '''')::uuid)', t);
    EXECUTE format('GRANT SELECT, INSERT ON %I TO vast_app', t);
  END LOOP;
END $$;
--> statement-breakpoint
GRANT UPDATE (closed, closed_by) ON follow_ups TO vast_app;
--> statement-breakpoint
CREATE TRIGGER sightings_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON sightings FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
