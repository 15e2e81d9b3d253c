CREATE TABLE "lot_asks" (
	"nursery_id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"as_of" date NOT NULL,
	"basis" text NOT NULL,
	"asks" jsonb,
	"fault" text,
	CONSTRAINT "lot_asks_nursery_id_lot_id_pk" PRIMARY KEY("nursery_id","lot_id")
);
--> statement-breakpoint
CREATE TABLE "nursery_today" (
	"nursery_id" uuid NOT NULL,
	"as_of" date NOT NULL,
	"known" uuid,
	"worked_at" timestamp with time zone NOT NULL,
	"forecast" integer NOT NULL,
	"faults" jsonb NOT NULL,
	"items" text NOT NULL,
	"room" text NOT NULL,
	"room_basis" text NOT NULL,
	CONSTRAINT "nursery_today_nursery_id_pk" PRIMARY KEY("nursery_id")
);
--> statement-breakpoint
DROP TABLE "lot_acts" CASCADE;--> statement-breakpoint
ALTER TABLE "lot_asks" ADD CONSTRAINT "lot_asks_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot_asks" ADD CONSTRAINT "asks_lot" FOREIGN KEY ("nursery_id","lot_id") REFERENCES "public"."lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "nursery_today" ADD CONSTRAINT "nursery_today_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['lot_asks','nursery_today'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;
