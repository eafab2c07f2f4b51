CREATE TABLE "audit_log" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person" uuid,
	"what" text NOT NULL,
	"subject" text NOT NULL,
	CONSTRAINT "audit_log_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "counters" (
	"org" uuid NOT NULL,
	"series" text NOT NULL,
	"last" integer NOT NULL,
	"last_hash" text NOT NULL,
	CONSTRAINT "counters_org_series_pk" PRIMARY KEY("org","series")
);
--> statement-breakpoint
CREATE TABLE "events" (
	"org" uuid NOT NULL,
	"run" uuid NOT NULL,
	"id" uuid NOT NULL,
	"position" integer NOT NULL,
	"received" bigint NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "events_org_id_pk" PRIMARY KEY("org","id"),
	CONSTRAINT "events_position" UNIQUE("org","run","position")
);
--> statement-breakpoint
CREATE TABLE "gauge_links" (
	"org" uuid NOT NULL,
	"run" uuid NOT NULL,
	"gauge" uuid NOT NULL,
	"code_hash" text NOT NULL,
	"token_hash" text,
	"simulated" boolean NOT NULL,
	"made" timestamp with time zone NOT NULL,
	CONSTRAINT "gauge_links_org_run_gauge_pk" PRIMARY KEY("org","run","gauge"),
	CONSTRAINT "gauge_links_code_hash_unique" UNIQUE("code_hash"),
	CONSTRAINT "gauge_links_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "gauges" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"facts" jsonb NOT NULL,
	CONSTRAINT "gauges_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "organisations" (
	"org" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"contact" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "packs" (
	"org" uuid NOT NULL,
	"id" text NOT NULL,
	"version" text NOT NULL,
	"hash" text NOT NULL,
	"body" text NOT NULL,
	CONSTRAINT "packs_org_id_version_pk" PRIMARY KEY("org","id","version")
);
--> statement-breakpoint
CREATE TABLE "people" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"role" text NOT NULL,
	"password_hash" text NOT NULL,
	"licence_number" text,
	"licence_until" text,
	CONSTRAINT "people_org_id_pk" PRIMARY KEY("org","id"),
	CONSTRAINT "people_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "public_links" (
	"org" uuid NOT NULL,
	"run" uuid NOT NULL,
	"token" text NOT NULL,
	"revoked" timestamp with time zone,
	CONSTRAINT "public_links_org_token_pk" PRIMARY KEY("org","token"),
	CONSTRAINT "public_links_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "runs" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"site" uuid NOT NULL,
	"system" uuid NOT NULL,
	"practice" boolean NOT NULL,
	"plan" jsonb NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"made_by" uuid NOT NULL,
	CONSTRAINT "runs_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "seals" (
	"org" uuid NOT NULL,
	"run" uuid NOT NULL,
	"number" text NOT NULL,
	"series" text NOT NULL,
	"previous" text NOT NULL,
	"hash" text NOT NULL,
	"signature" text NOT NULL,
	"key" text NOT NULL,
	"body" text NOT NULL,
	"word" text NOT NULL,
	"status" text NOT NULL,
	"sealed_at" timestamp with time zone NOT NULL,
	"search" text NOT NULL,
	"glyph" jsonb NOT NULL,
	"summary" jsonb NOT NULL,
	CONSTRAINT "seals_org_run_pk" PRIMARY KEY("org","run"),
	CONSTRAINT "seals_number" UNIQUE("org","series","number")
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"person" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"expires" timestamp with time zone NOT NULL,
	"revoked" timestamp with time zone,
	"device" text DEFAULT '' NOT NULL,
	CONSTRAINT "sessions_org_id_pk" PRIMARY KEY("org","id"),
	CONSTRAINT "sessions_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "sign_in_attempts" (
	"key" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "signing_keys" (
	"org" uuid PRIMARY KEY NOT NULL,
	"public_key" text NOT NULL,
	"sealed_secret" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sites" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"address" text NOT NULL,
	"customer" text NOT NULL,
	CONSTRAINT "sites_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "systems" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"site" uuid NOT NULL,
	"name" text NOT NULL,
	"facts" jsonb NOT NULL,
	CONSTRAINT "systems_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
ALTER TABLE "audit_log" ADD CONSTRAINT "audit_log_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "counters" ADD CONSTRAINT "counters_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "events" ADD CONSTRAINT "events_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gauge_links" ADD CONSTRAINT "gauge_links_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gauges" ADD CONSTRAINT "gauges_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "packs" ADD CONSTRAINT "packs_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "public_links" ADD CONSTRAINT "public_links_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "runs_org_system_systems_org_id_fk" FOREIGN KEY ("org","system") REFERENCES "public"."systems"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "runs_org_site_sites_org_id_fk" FOREIGN KEY ("org","site") REFERENCES "public"."sites"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "runs_org_made_by_people_org_id_fk" FOREIGN KEY ("org","made_by") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seals" ADD CONSTRAINT "seals_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "signing_keys" ADD CONSTRAINT "signing_keys_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sites" ADD CONSTRAINT "sites_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "systems" ADD CONSTRAINT "systems_org_site_sites_org_id_fk" FOREIGN KEY ("org","site") REFERENCES "public"."sites"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "sign_in_attempts_key" ON "sign_in_attempts" USING btree ("key","at");