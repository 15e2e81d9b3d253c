CREATE TABLE "hold" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"begun_on" date NOT NULL,
	"cause" text NOT NULL,
	"cover" text NOT NULL,
	"count" bigint NOT NULL,
	"note" text NOT NULL,
	"person_id" uuid NOT NULL,
	"ended_on" date,
	"alive" bigint,
	"end_entry" uuid,
	"struck_at" timestamp with time zone,
	CONSTRAINT "hold_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "hold_step" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"hold_id" uuid NOT NULL,
	"on_date" date NOT NULL,
	"what" text NOT NULL,
	"note" text NOT NULL,
	"person_id" uuid NOT NULL,
	"noted_at" timestamp with time zone DEFAULT now() NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "hold_step_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
ALTER TABLE "hold" ADD CONSTRAINT "hold_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hold" ADD CONSTRAINT "hold_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hold" ADD CONSTRAINT "hold_lot_fk" FOREIGN KEY ("nursery_id","lot_id") REFERENCES "public"."lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hold_step" ADD CONSTRAINT "hold_step_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hold_step" ADD CONSTRAINT "hold_step_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hold_step" ADD CONSTRAINT "hold_step_hold_fk" FOREIGN KEY ("nursery_id","hold_id") REFERENCES "public"."hold"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "hold_one_under_way" ON "hold" USING btree ("nursery_id","lot_id") WHERE ended_on is null and struck_at is null;--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['hold','hold_step'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;
