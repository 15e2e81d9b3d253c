CREATE TABLE "parcel_aside" (
	"nursery_id" uuid NOT NULL,
	"parcel_id" uuid NOT NULL,
	"line_id" uuid NOT NULL,
	"order_id" uuid NOT NULL,
	"count" bigint NOT NULL,
	"set_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "parcel_aside_nursery_id_parcel_id_line_id_pk" PRIMARY KEY("nursery_id","parcel_id","line_id"),
	CONSTRAINT "parcel_aside_some" CHECK ("parcel_aside"."count" > 0)
);
--> statement-breakpoint
CREATE TABLE "store_look" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"place" text NOT NULL,
	"on_date" date NOT NULL,
	"temp_c" double precision,
	"seen" jsonb NOT NULL,
	"note" text NOT NULL,
	"person_id" uuid NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "store_look_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
ALTER TABLE "parcel_held" ADD COLUMN "aside" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "sending" ADD COLUMN "released" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "parcel_aside" ADD CONSTRAINT "parcel_aside_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "parcel_aside" ADD CONSTRAINT "parcel_aside_fk" FOREIGN KEY ("nursery_id","parcel_id") REFERENCES "public"."parcel"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "parcel_aside" ADD CONSTRAINT "parcel_aside_order_fk" FOREIGN KEY ("nursery_id","order_id") REFERENCES "public"."tree_order"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "store_look" ADD CONSTRAINT "store_look_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "store_look" ADD CONSTRAINT "store_look_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "parcel_aside_line" ON "parcel_aside" USING btree ("nursery_id","order_id","line_id");--> statement-breakpoint
CREATE INDEX "store_look_day" ON "store_look" USING btree ("nursery_id","on_date");--> statement-breakpoint
ALTER TABLE "parcel_held" ADD CONSTRAINT "parcel_aside_held" CHECK ("parcel_held"."aside" >= 0 and ("parcel_held"."aside" = 0 or "parcel_held"."aside" <= "parcel_held"."held"));--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['parcel_aside','store_look'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;
--> statement-breakpoint
-- How many of a parcel are set aside follows the rows that say so; the check on it refuses more than lie there.
create function keep_aside() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
declare
  at parcel_aside := coalesce(new, old);
begin
  update parcel_held set aside = aside + coalesce(new.count, 0) - coalesce(old.count, 0)
    where nursery_id = at.nursery_id and parcel_id = at.parcel_id;
  if not found then
    raise exception 'parcel holds nothing'
      using errcode = 'check_violation', constraint = 'parcel_not_below_zero', table = 'parcel_held';
  end if;
  return null;
end $$;
--> statement-breakpoint
create trigger aside_keeps_parcel after insert or update of count or delete on parcel_aside for each row execute function keep_aside();
