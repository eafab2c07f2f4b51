CREATE TABLE "leak_entries" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"system" uuid NOT NULL,
	"leak" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "leak_entries_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
ALTER TABLE "leak_entries" ADD CONSTRAINT "leak_entries_org_system_systems_org_id_fk" FOREIGN KEY ("org","system") REFERENCES "public"."systems"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "leak_entries_system" ON "leak_entries" USING btree ("org","system");
--> statement-breakpoint
ALTER TABLE leak_entries ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE leak_entries FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON leak_entries TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT ON leak_entries TO vast_app;
--> statement-breakpoint
CREATE TRIGGER leak_entries_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON leak_entries FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
