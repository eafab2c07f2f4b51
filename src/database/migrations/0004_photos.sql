CREATE TABLE "photos" (
	"org" uuid NOT NULL,
	"run" uuid NOT NULL,
	"hash" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	CONSTRAINT "photos_org_run_hash_pk" PRIMARY KEY("org","run","hash")
);
--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;