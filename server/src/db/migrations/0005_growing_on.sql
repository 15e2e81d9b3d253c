CREATE TABLE "photo" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"width_px" integer NOT NULL,
	"height_px" integer NOT NULL,
	"sent_sha256" text NOT NULL,
	"jpeg" "bytea" NOT NULL,
	"person_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "photo_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "act_mark" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"rule" text NOT NULL,
	"subject_id" uuid,
	"mark" text NOT NULL,
	"on_date" date NOT NULL,
	"until" date NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"minutes" double precision,
	"trees" integer NOT NULL,
	"assigned_to" uuid,
	"person_id" uuid NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "act_mark_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "calendar_token" (
	"nursery_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "calendar_token_nursery_id_person_id_pk" PRIMARY KEY("nursery_id","person_id"),
	CONSTRAINT "calendar_token_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "lot_acts" (
	"nursery_id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"as_of" date NOT NULL,
	"basis" text NOT NULL,
	"acts" jsonb NOT NULL,
	CONSTRAINT "lot_acts_nursery_id_lot_id_pk" PRIMARY KEY("nursery_id","lot_id")
);
--> statement-breakpoint
CREATE TABLE "station" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"cover_id" uuid,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "station_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "station_reading" (
	"nursery_id" uuid NOT NULL,
	"station_id" uuid NOT NULL,
	"hour" text NOT NULL,
	"temp_c" double precision,
	"rain_mm" double precision,
	"humidity" double precision,
	"wind_ms" double precision,
	"flag" text,
	CONSTRAINT "station_reading_nursery_id_station_id_hour_pk" PRIMARY KEY("nursery_id","station_id","hour")
);
--> statement-breakpoint
ALTER TABLE "weather_day" ADD COLUMN "humidity" double precision;--> statement-breakpoint
ALTER TABLE "weather_day" ADD COLUMN "wind_ms" double precision;--> statement-breakpoint
ALTER TABLE "weather_day" ADD COLUMN "station_id" uuid;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "act_mark" ADD CONSTRAINT "act_mark_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calendar_token" ADD CONSTRAINT "calendar_token_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot_acts" ADD CONSTRAINT "lot_acts_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot_acts" ADD CONSTRAINT "acts_lot" FOREIGN KEY ("nursery_id","lot_id") REFERENCES "public"."lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "station" ADD CONSTRAINT "station_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "station_reading" ADD CONSTRAINT "station_reading_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "station_reading" ADD CONSTRAINT "reading_station" FOREIGN KEY ("nursery_id","station_id") REFERENCES "public"."station"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "photo_by_time" ON "photo" USING btree ("nursery_id","at");--> statement-breakpoint
CREATE INDEX "act_mark_until" ON "act_mark" USING btree ("nursery_id","until");--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['photo','act_mark','calendar_token','lot_acts','station','station_reading'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;--> statement-breakpoint
-- Whoever holds the secret of a calendar may be told whose it is, and nothing more.
create policy by_secret on calendar_token for select using (token_hash = nullif(current_setting('kauri.calendar', true), ''));--> statement-breakpoint
create trigger photo_is_kept before update or delete on photo for each row execute function refuse_change();
