ALTER TABLE "seals" DROP COLUMN "word";--> statement-breakpoint
ALTER TABLE "seals" DROP COLUMN "status";--> statement-breakpoint
ALTER TABLE "seals" DROP COLUMN "search";--> statement-breakpoint
ALTER TABLE "seals" DROP COLUMN "glyph";--> statement-breakpoint
ALTER TABLE "seals" DROP COLUMN "summary";