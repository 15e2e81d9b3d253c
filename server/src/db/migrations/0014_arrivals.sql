CREATE TABLE "arrival" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"on_date" date NOT NULL,
	"species_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"supplier" text NOT NULL,
	"provenance" text NOT NULL,
	"papers" text NOT NULL,
	"count" bigint NOT NULL,
	"price" double precision,
	"looked" integer NOT NULL,
	"failing" integer NOT NULL,
	"faults" jsonb NOT NULL,
	"accepted" bigint NOT NULL,
	"quarantine_until" date,
	"lot_id" uuid,
	"note" text NOT NULL,
	"person_id" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "arrival_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_species_fk" FOREIGN KEY ("nursery_id","species_id") REFERENCES "public"."species"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_lot_fk" FOREIGN KEY ("nursery_id","lot_id") REFERENCES "public"."lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "arrival_lot" ON "arrival" USING btree ("nursery_id","lot_id");--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['arrival'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;
