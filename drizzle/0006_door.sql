CREATE TABLE "sign_in_attempt" (
	"id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"was_right" boolean NOT NULL
);
--> statement-breakpoint
CREATE TABLE "signed_in" (
	"id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"last_seen_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
CREATE INDEX "sign_in_attempt_at" ON "sign_in_attempt" USING btree ("at");--> statement-breakpoint
CREATE INDEX "signed_in_at" ON "signed_in" USING btree ("at");