CREATE TABLE "kit" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"facts" jsonb NOT NULL,
	CONSTRAINT "kit_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "kit_log" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"item" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"entry" jsonb NOT NULL,
	CONSTRAINT "kit_log_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "outbox" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"to" text NOT NULL,
	"subject" text NOT NULL,
	"body" text NOT NULL,
	CONSTRAINT "outbox_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "visits" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"day" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"facts" jsonb NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"made_by" text NOT NULL,
	CONSTRAINT "visits_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
ALTER TABLE "kit" ADD CONSTRAINT "kit_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kit_log" ADD CONSTRAINT "kit_log_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outbox" ADD CONSTRAINT "outbox_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "visits" ADD CONSTRAINT "visits_org_organisations_org_fk" FOREIGN KEY ("org") REFERENCES "public"."organisations"("org") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "kit_log_item" ON "kit_log" USING btree ("org","item","at");--> statement-breakpoint
CREATE INDEX "visits_day" ON "visits" USING btree ("org","day");