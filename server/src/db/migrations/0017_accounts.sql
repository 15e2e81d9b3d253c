CREATE TABLE "invite" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"token_hash" text NOT NULL,
	"by_person" uuid NOT NULL,
	"ends_at" timestamp with time zone NOT NULL,
	"taken_by" uuid,
	"withdrawn_at" timestamp with time zone,
	CONSTRAINT "invite_nursery_id_id_pk" PRIMARY KEY("nursery_id","id"),
	CONSTRAINT "invite_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "password_link" (
	"person_id" uuid PRIMARY KEY NOT NULL,
	"token_hash" text NOT NULL,
	"ends_at" timestamp with time zone NOT NULL,
	CONSTRAINT "password_link_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "second_factor" (
	"person_id" uuid PRIMARY KEY NOT NULL,
	"secret" text NOT NULL,
	"in_force_since" timestamp with time zone,
	"last_step" bigint DEFAULT 0 NOT NULL,
	"recovery_hashes" text[] NOT NULL
);
--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "email" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "password_hash" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "membership" ADD COLUMN "since" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "id" uuid DEFAULT gen_random_uuid() NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "agent" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "device" text DEFAULT 'desk' NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "seen_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "invite" ADD CONSTRAINT "invite_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invite" ADD CONSTRAINT "invite_by_person_person_id_fk" FOREIGN KEY ("by_person") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invite" ADD CONSTRAINT "invite_taken_by_person_id_fk" FOREIGN KEY ("taken_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "password_link" ADD CONSTRAINT "password_link_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_factor" ADD CONSTRAINT "second_factor_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_id_unique" UNIQUE("id");--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards. Whoever holds the secret of an invitation may be told what it is to.
alter table invite enable row level security;--> statement-breakpoint
alter table invite force row level security;--> statement-breakpoint
create policy own_nursery on invite using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()));--> statement-breakpoint
create policy by_secret on invite for select using (token_hash = nullif(current_setting('kauri.invite', true), ''));
