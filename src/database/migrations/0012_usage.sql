ALTER TABLE "organisations" ADD COLUMN "usage" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "usage" jsonb DEFAULT '{}'::jsonb NOT NULL;