CREATE TABLE "invitations" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"person" uuid,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"role" text NOT NULL,
	"token_hash" text NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"made_by" text NOT NULL,
	"expires" timestamp with time zone NOT NULL,
	"ended" timestamp with time zone,
	CONSTRAINT "invitations_org_id_pk" PRIMARY KEY("org","id"),
	CONSTRAINT "invitations_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "ledger" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"source" text NOT NULL,
	"number" text NOT NULL,
	"word" text NOT NULL,
	"status" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"site" text NOT NULL,
	"system" uuid,
	"procedure" text NOT NULL,
	"tester" text NOT NULL,
	"gauges" text[] NOT NULL,
	"superseded" text,
	"voided" text,
	"words" "tsvector" NOT NULL,
	"glyph" jsonb NOT NULL,
	"summary" jsonb NOT NULL,
	"figures" jsonb NOT NULL,
	CONSTRAINT "ledger_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "ledger_views" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"person" uuid NOT NULL,
	"name" text NOT NULL,
	"query" text NOT NULL,
	"shared" boolean NOT NULL,
	"made" timestamp with time zone NOT NULL,
	CONSTRAINT "ledger_views_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "log_mappings" (
	"org" uuid NOT NULL,
	"shape" text NOT NULL,
	"mapping" jsonb NOT NULL,
	"used" timestamp with time zone NOT NULL,
	CONSTRAINT "log_mappings_org_shape_pk" PRIMARY KEY("org","shape")
);
--> statement-breakpoint
CREATE TABLE "outside_photos" (
	"org" uuid NOT NULL,
	"record" uuid NOT NULL,
	"hash" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "outside_photos_org_record_hash_pk" PRIMARY KEY("org","record","hash")
);
--> statement-breakpoint
CREATE TABLE "outside_records" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"number" text NOT NULL,
	"hash" text NOT NULL,
	"body" text NOT NULL,
	"seal" jsonb NOT NULL,
	"faults" jsonb NOT NULL,
	"marks" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"imported" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	CONSTRAINT "outside_records_org_id_pk" PRIMARY KEY("org","id"),
	CONSTRAINT "outside_records_hash" UNIQUE("org","hash")
);
--> statement-breakpoint
CREATE TABLE "photo_parts" (
	"org" uuid NOT NULL,
	"run" uuid NOT NULL,
	"hash" text NOT NULL,
	"at" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"received" timestamp with time zone NOT NULL,
	CONSTRAINT "photo_parts_org_run_hash_at_pk" PRIMARY KEY("org","run","hash","at")
);
--> statement-breakpoint
CREATE TABLE "prints" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"run" uuid NOT NULL,
	"number" text NOT NULL,
	"paper" text NOT NULL,
	CONSTRAINT "prints_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "record_marks" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"run" uuid NOT NULL,
	"body" text NOT NULL,
	"signature" text NOT NULL,
	"key" text NOT NULL,
	"made" timestamp with time zone NOT NULL,
	CONSTRAINT "record_marks_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "signature_links" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"run" uuid NOT NULL,
	"role" text NOT NULL,
	"name" text NOT NULL,
	"token_hash" text NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"made_by" uuid NOT NULL,
	"expires" timestamp with time zone NOT NULL,
	"ended" timestamp with time zone,
	CONSTRAINT "signature_links_org_id_pk" PRIMARY KEY("org","id"),
	CONSTRAINT "signature_links_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
ALTER TABLE "follow_ups" ALTER COLUMN "run" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "follow_ups" ALTER COLUMN "system" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "signing_keys" DROP CONSTRAINT "signing_keys_pkey";--> statement-breakpoint
ALTER TABLE "signing_keys" ALTER COLUMN "sealed_secret" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "signing_keys" ADD CONSTRAINT "signing_keys_org_public_key_pk" PRIMARY KEY("org","public_key");--> statement-breakpoint
ALTER TABLE "follow_ups" ADD COLUMN "subject" uuid;--> statement-breakpoint
ALTER TABLE "follow_ups" ADD COLUMN "owner" uuid;--> statement-breakpoint
ALTER TABLE "follow_ups" ADD COLUMN "closed_text" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "papers" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "left" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "public_links" ADD COLUMN "made" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "seals" ADD COLUMN "parts" text;--> statement-breakpoint
ALTER TABLE "seals" ADD COLUMN "parts_signature" text;--> statement-breakpoint
ALTER TABLE "signing_keys" ADD COLUMN "made" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "signing_keys" ADD COLUMN "retired" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "invitations" ADD CONSTRAINT "invitations_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitations" ADD CONSTRAINT "invitations_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ledger_views" ADD CONSTRAINT "ledger_views_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "log_mappings" ADD CONSTRAINT "log_mappings_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outside_photos" ADD CONSTRAINT "outside_photos_org_record_outside_records_org_id_fk" FOREIGN KEY ("org","record") REFERENCES "public"."outside_records"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outside_records" ADD CONSTRAINT "outside_records_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo_parts" ADD CONSTRAINT "photo_parts_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "prints" ADD CONSTRAINT "prints_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "prints" ADD CONSTRAINT "prints_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record_marks" ADD CONSTRAINT "record_marks_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "signature_links" ADD CONSTRAINT "signature_links_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "signature_links" ADD CONSTRAINT "signature_links_org_made_by_people_org_id_fk" FOREIGN KEY ("org","made_by") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "ledger_newest" ON "ledger" USING btree ("org","at" DESC NULLS LAST,"id" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "ledger_site" ON "ledger" USING btree ("org","site","at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "ledger_system" ON "ledger" USING btree ("org","system","at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "ledger_word" ON "ledger" USING btree ("org","word","at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "ledger_procedure" ON "ledger" USING btree ("org","procedure","at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "ledger_tester" ON "ledger" USING btree ("org","tester","at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "ledger_words" ON "ledger" USING gin ("words");--> statement-breakpoint
CREATE INDEX "record_marks_run" ON "record_marks" USING btree ("org","run");--> statement-breakpoint
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_org_owner_people_org_id_fk" FOREIGN KEY ("org","owner") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "audit_log_at" ON "audit_log" USING btree ("org","at");--> statement-breakpoint
CREATE INDEX "follow_ups_open" ON "follow_ups" USING btree ("org","closed","due");