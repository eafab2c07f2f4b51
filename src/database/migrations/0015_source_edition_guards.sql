-- What an organisation works to is its own, and may be said anew: plans keep what they began with.
ALTER TABLE source_editions ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE source_editions FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON source_editions TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT ON source_editions TO vast_app;
--> statement-breakpoint
GRANT UPDATE (edition, clause, jurisdiction) ON source_editions TO vast_app;
