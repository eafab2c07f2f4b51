ALTER TABLE "organisations" ADD COLUMN "usage" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "usage" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
GRANT UPDATE (usage) ON organisations TO vast_app;--> statement-breakpoint
GRANT UPDATE (usage) ON people TO vast_app;
