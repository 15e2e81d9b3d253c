CREATE TABLE "table_taken" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"person_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"good" integer NOT NULL,
	"first_on" date,
	"last_on" date,
	"took" jsonb NOT NULL,
	"taken_back_at" timestamp with time zone,
	CONSTRAINT "table_taken_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
ALTER TABLE "table_taken" ADD CONSTRAINT "table_taken_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "table_taken" ADD CONSTRAINT "table_taken_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
alter table table_taken enable row level security;--> statement-breakpoint
alter table table_taken force row level security;--> statement-breakpoint
create policy own_nursery on table_taken using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()));
