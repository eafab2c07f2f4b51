ALTER TABLE "open_runs" ADD COLUMN "turn" bigserial NOT NULL;
--> statement-breakpoint
GRANT UPDATE (turn) ON open_runs TO vast_app;
--> statement-breakpoint
GRANT USAGE ON SEQUENCE open_runs_turn_seq TO vast_app;
