CREATE TABLE "parcel" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"entry_id" uuid NOT NULL,
	"form" text NOT NULL,
	"grade" text NOT NULL,
	"from_cm" double precision,
	"to_cm" double precision,
	"bundle_of" integer,
	"place" text NOT NULL,
	"since" date NOT NULL,
	"count" bigint NOT NULL,
	CONSTRAINT "parcel_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "parcel_held" (
	"nursery_id" uuid NOT NULL,
	"parcel_id" uuid NOT NULL,
	"held" bigint NOT NULL,
	CONSTRAINT "parcel_held_nursery_id_parcel_id_pk" PRIMARY KEY("nursery_id","parcel_id"),
	CONSTRAINT "parcel_not_below_zero" CHECK ("parcel_held"."held" >= 0)
);
--> statement-breakpoint
CREATE TABLE "sending" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"on_date" date NOT NULL,
	"order_id" uuid,
	"line_id" uuid,
	"to_words" text NOT NULL,
	"note" text NOT NULL,
	"person_id" uuid NOT NULL,
	"sent_at" timestamp with time zone DEFAULT now() NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "sending_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
ALTER TABLE "movement" DROP CONSTRAINT "movement_accounts";--> statement-breakpoint
ALTER TABLE "movement" ADD COLUMN "parcel_id" uuid;--> statement-breakpoint
ALTER TABLE "parcel" ADD CONSTRAINT "parcel_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "parcel" ADD CONSTRAINT "parcel_lot_fk" FOREIGN KEY ("nursery_id","lot_id") REFERENCES "public"."lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "parcel_held" ADD CONSTRAINT "parcel_held_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "parcel_held" ADD CONSTRAINT "parcel_held_fk" FOREIGN KEY ("nursery_id","parcel_id") REFERENCES "public"."parcel"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sending" ADD CONSTRAINT "sending_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sending" ADD CONSTRAINT "sending_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "parcel_lot" ON "parcel" USING btree ("nursery_id","lot_id");--> statement-breakpoint
CREATE INDEX "sending_day" ON "sending" USING btree ("nursery_id","on_date");--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_accounts" CHECK ("movement"."from_account" ~ '^(supply|seed|sown|standing|lifted|sent|out:[a-z-]+)$' and "movement"."to_account" ~ '^(supply|seed|sown|standing|lifted|sent|out:[a-z-]+)$');--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_parcel_fk" FOREIGN KEY ("nursery_id","parcel_id") REFERENCES "public"."parcel"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['parcel','parcel_held','sending'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;
--> statement-breakpoint
-- What lies in a parcel follows the movements that name it; the check on it refuses a fall below zero.
create function keep_parcel() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  if new.to_account = 'lifted' then
    insert into parcel_held (nursery_id, parcel_id, held) values (new.nursery_id, new.parcel_id, new.count)
      on conflict (nursery_id, parcel_id) do update set held = parcel_held.held + excluded.held;
  elsif new.from_account = 'lifted' then
    update parcel_held set held = held - new.count where nursery_id = new.nursery_id and parcel_id = new.parcel_id;
    if not found then
      raise exception 'parcel holds nothing'
        using errcode = 'check_violation', constraint = 'parcel_not_below_zero', table = 'parcel_held';
    end if;
  end if;
  return new;
end $$;
--> statement-breakpoint
create trigger movement_keeps_parcel after insert on movement for each row when (new.parcel_id is not null) execute function keep_parcel();
