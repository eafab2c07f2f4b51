CREATE TABLE "yard_acts" (
	"org" uuid NOT NULL,
	"run" uuid NOT NULL,
	"position" integer NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "yard_acts_org_run_position_pk" PRIMARY KEY("org","run","position")
);
--> statement-breakpoint
CREATE TABLE "yard_results" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"person" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "yard_results_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "yard_runs" (
	"org" uuid NOT NULL,
	"run" uuid NOT NULL,
	"person" uuid NOT NULL,
	"scenario" jsonb NOT NULL,
	"world" jsonb NOT NULL,
	"way" text NOT NULL,
	"task" uuid,
	"made" timestamp with time zone NOT NULL,
	CONSTRAINT "yard_runs_org_run_pk" PRIMARY KEY("org","run")
);
--> statement-breakpoint
CREATE TABLE "yard_scenarios" (
	"org" uuid NOT NULL,
	"id" text NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "yard_scenarios_org_id_made_pk" PRIMARY KEY("org","id","made")
);
--> statement-breakpoint
CREATE TABLE "yard_tasks" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"person" uuid NOT NULL,
	"scenario" jsonb NOT NULL,
	"way" text NOT NULL,
	"minutes" integer,
	"due" text NOT NULL,
	"note" text NOT NULL,
	"by" uuid NOT NULL,
	"made" timestamp with time zone NOT NULL,
	CONSTRAINT "yard_tasks_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
ALTER TABLE "yard_acts" ADD CONSTRAINT "yard_acts_org_run_yard_runs_org_run_fk" FOREIGN KEY ("org","run") REFERENCES "public"."yard_runs"("org","run") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "yard_results" ADD CONSTRAINT "yard_results_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "yard_runs" ADD CONSTRAINT "yard_runs_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "yard_runs" ADD CONSTRAINT "yard_runs_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "yard_runs" ADD CONSTRAINT "yard_runs_org_task_yard_tasks_org_id_fk" FOREIGN KEY ("org","task") REFERENCES "public"."yard_tasks"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "yard_scenarios" ADD CONSTRAINT "yard_scenarios_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "yard_tasks" ADD CONSTRAINT "yard_tasks_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "yard_tasks" ADD CONSTRAINT "yard_tasks_org_by_people_org_id_fk" FOREIGN KEY ("org","by") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "yard_results_person" ON "yard_results" USING btree ("org","person","at");--> statement-breakpoint
CREATE INDEX "yard_runs_person" ON "yard_runs" USING btree ("org","person");--> statement-breakpoint
CREATE INDEX "yard_tasks_person" ON "yard_tasks" USING btree ("org","person");
--> statement-breakpoint
ALTER TABLE yard_scenarios ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE yard_scenarios FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON yard_scenarios TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT ON yard_scenarios TO vast_app;
--> statement-breakpoint
CREATE TRIGGER yard_scenarios_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON yard_scenarios FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
ALTER TABLE yard_tasks ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE yard_tasks FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON yard_tasks TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT ON yard_tasks TO vast_app;
--> statement-breakpoint
CREATE TRIGGER yard_tasks_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON yard_tasks FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
ALTER TABLE yard_runs ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE yard_runs FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON yard_runs TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT ON yard_runs TO vast_app;
--> statement-breakpoint
CREATE TRIGGER yard_runs_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON yard_runs FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
ALTER TABLE yard_acts ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE yard_acts FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON yard_acts TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT ON yard_acts TO vast_app;
--> statement-breakpoint
CREATE TRIGGER yard_acts_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON yard_acts FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
ALTER TABLE yard_results ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE yard_results FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON yard_results TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT ON yard_results TO vast_app;
--> statement-breakpoint
CREATE TRIGGER yard_results_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON yard_results FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
