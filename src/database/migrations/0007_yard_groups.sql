CREATE TABLE "yard_groups" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"person" uuid NOT NULL,
	"name" text NOT NULL,
	"within" boolean NOT NULL,
	"by" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "yard_groups_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "yard_statements" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"number" text NOT NULL,
	"person" uuid NOT NULL,
	"by" uuid NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "yard_statements_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
ALTER TABLE "yard_groups" ADD CONSTRAINT "yard_groups_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "yard_groups" ADD CONSTRAINT "yard_groups_org_by_people_org_id_fk" FOREIGN KEY ("org","by") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "yard_statements" ADD CONSTRAINT "yard_statements_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "yard_statements" ADD CONSTRAINT "yard_statements_org_by_people_org_id_fk" FOREIGN KEY ("org","by") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "yard_groups_person" ON "yard_groups" USING btree ("org","person","at");--> statement-breakpoint
CREATE UNIQUE INDEX "yard_statements_number" ON "yard_statements" USING btree ("org","number");--> statement-breakpoint
CREATE INDEX "yard_statements_person" ON "yard_statements" USING btree ("org","person","made");--> statement-breakpoint
ALTER TABLE yard_groups ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE yard_groups FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON yard_groups TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT ON yard_groups TO vast_app;
--> statement-breakpoint
CREATE TRIGGER yard_groups_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON yard_groups FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
ALTER TABLE yard_statements ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE yard_statements FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON yard_statements TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT ON yard_statements TO vast_app;
--> statement-breakpoint
CREATE TRIGGER yard_statements_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON yard_statements FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
