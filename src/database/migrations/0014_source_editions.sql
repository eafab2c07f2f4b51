CREATE TABLE "source_editions" (
	"org" uuid NOT NULL,
	"pack" text NOT NULL,
	"source" text NOT NULL,
	"edition" text NOT NULL,
	"clause" text NOT NULL,
	"jurisdiction" text NOT NULL,
	CONSTRAINT "source_editions_org_pack_source_pk" PRIMARY KEY("org","pack","source")
);
--> statement-breakpoint
ALTER TABLE "source_editions" ADD CONSTRAINT "source_editions_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;