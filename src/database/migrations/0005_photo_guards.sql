-- Photos stand under the same rules: own organisation only, append-only.
ALTER TABLE photos ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE photos FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON photos TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT ON photos TO vast_app;
--> statement-breakpoint
CREATE TRIGGER photos_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON photos FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
