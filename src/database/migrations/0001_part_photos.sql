CREATE TABLE "part_photos" (
	"org" uuid NOT NULL,
	"system" uuid NOT NULL,
	"part" text NOT NULL,
	"hash" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person" uuid NOT NULL,
	"by" text NOT NULL,
	CONSTRAINT "part_photos_org_system_hash_pk" PRIMARY KEY("org","system","hash")
);
--> statement-breakpoint
ALTER TABLE "part_photos" ADD CONSTRAINT "part_photos_org_system_systems_org_id_fk" FOREIGN KEY ("org","system") REFERENCES "public"."systems"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "part_photos" ADD CONSTRAINT "part_photos_org_person_people_org_id_fk" FOREIGN KEY ("org","person") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE part_photos ENABLE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE part_photos FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE POLICY own_organisation ON part_photos TO vast_app USING (org = nullif(current_setting('app.org', true), '')::uuid) WITH CHECK (org = nullif(current_setting('app.org', true), '')::uuid);
--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE (part), DELETE ON part_photos TO vast_app;
