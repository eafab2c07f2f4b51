CREATE TABLE "watch_entries" (
	"org" uuid NOT NULL,
	"watch" uuid NOT NULL,
	"id" uuid NOT NULL,
	"received" timestamp with time zone NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "watch_entries_org_id_pk" PRIMARY KEY("org","id")
);
--> statement-breakpoint
CREATE TABLE "watches" (
	"org" uuid NOT NULL,
	"id" uuid NOT NULL,
	"system" uuid NOT NULL,
	"run" uuid,
	"facts" jsonb NOT NULL,
	"made" timestamp with time zone NOT NULL,
	"made_by" uuid NOT NULL,
	"token_hash" text,
	"token_made" timestamp with time zone,
	CONSTRAINT "watches_org_id_pk" PRIMARY KEY("org","id"),
	CONSTRAINT "watches_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
ALTER TABLE "watch_entries" ADD CONSTRAINT "watch_entries_org_watch_watches_org_id_fk" FOREIGN KEY ("org","watch") REFERENCES "public"."watches"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "watches_org_system_systems_org_id_fk" FOREIGN KEY ("org","system") REFERENCES "public"."systems"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "watches_org_run_runs_org_id_fk" FOREIGN KEY ("org","run") REFERENCES "public"."runs"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "watches_org_made_by_people_org_id_fk" FOREIGN KEY ("org","made_by") REFERENCES "public"."people"("org","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "watch_entries_watch" ON "watch_entries" USING btree ("org","watch","received");