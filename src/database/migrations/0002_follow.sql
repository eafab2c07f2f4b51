CREATE TABLE "follow_ups" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"run" uuid NOT NULL,
	"system" uuid NOT NULL,
	"kind" text NOT NULL,
	"text" text NOT NULL,
	"due" text NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"closed_by" text,
	"closed" timestamp with time zone,
	CONSTRAINT "follow_ups_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "sightings" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"run" uuid NOT NULL,
	"system" uuid NOT NULL,
	"item" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"facts" jsonb NOT NULL,
	"search" text NOT NULL,
	CONSTRAINT "sightings_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
ALTER TABLE "packs" ADD COLUMN "made" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "packs" ADD COLUMN "made_by" text;--> statement-breakpoint
ALTER TABLE "packs" ADD COLUMN "changes" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_org_system_systems_org_id_fk" FOREIGN KEY ("org","system") REFERENCES "public"."systems"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sightings" ADD CONSTRAINT "sightings_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sightings" ADD CONSTRAINT "sightings_org_system_systems_org_id_fk" FOREIGN KEY ("org","system") REFERENCES "public"."systems"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "sightings_system" ON "sightings" USING btree ("org","system","item","at");