CREATE TABLE "bed_design" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"design" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "bed_design_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "bed_design_version" (
	"nursery_id" uuid NOT NULL,
	"design_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"name" text NOT NULL,
	"design" jsonb NOT NULL,
	"person_id" uuid NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "bed_design_version_nursery_id_design_id_version_pk" PRIMARY KEY("nursery_id","design_id","version")
);
--> statement-breakpoint
CREATE TABLE "medium_stock" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"medium_id" uuid NOT NULL,
	"day" date NOT NULL,
	"litres" double precision NOT NULL,
	"why" text NOT NULL,
	"note" text NOT NULL,
	CONSTRAINT "medium_stock_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "nursery_value" (
	"nursery_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"value" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "nursery_value_nursery_id_kind_pk" PRIMARY KEY("nursery_id","kind")
);
--> statement-breakpoint
CREATE TABLE "place_check" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"place_id" uuid NOT NULL,
	"day" date NOT NULL,
	"condition" text NOT NULL,
	"repaired" boolean NOT NULL,
	"note" text NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "place_check_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "water_reading" (
	"nursery_id" uuid NOT NULL,
	"place_id" uuid NOT NULL,
	"day" date NOT NULL,
	"asked_litres" double precision NOT NULL,
	"litres" double precision,
	"before" double precision,
	"after" double precision,
	CONSTRAINT "water_reading_nursery_id_place_id_day_pk" PRIMARY KEY("nursery_id","place_id","day")
);
--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "angle_deg" double precision;--> statement-breakpoint
UPDATE "place" SET "angle_deg" = CASE WHEN "turned" THEN 90 ELSE 0 END;--> statement-breakpoint
ALTER TABLE "place" ALTER COLUMN "angle_deg" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "built_on" date;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "built_from" jsonb;--> statement-breakpoint
ALTER TABLE "bed_design" ADD CONSTRAINT "bed_design_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bed_design_version" ADD CONSTRAINT "bed_design_version_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bed_design_version" ADD CONSTRAINT "version_design" FOREIGN KEY ("nursery_id","design_id") REFERENCES "public"."bed_design"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "medium_stock" ADD CONSTRAINT "medium_stock_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "medium_stock" ADD CONSTRAINT "stock_medium" FOREIGN KEY ("nursery_id","medium_id") REFERENCES "public"."medium"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "nursery_value" ADD CONSTRAINT "nursery_value_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place_check" ADD CONSTRAINT "place_check_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place_check" ADD CONSTRAINT "check_place" FOREIGN KEY ("nursery_id","place_id") REFERENCES "public"."place"("nursery_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "water_reading" ADD CONSTRAINT "water_reading_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "water_reading" ADD CONSTRAINT "reading_place" FOREIGN KEY ("nursery_id","place_id") REFERENCES "public"."place"("nursery_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "medium_stock_by_medium" ON "medium_stock" USING btree ("nursery_id","medium_id");--> statement-breakpoint
CREATE INDEX "place_check_by_day" ON "place_check" USING btree ("nursery_id","day");--> statement-breakpoint
ALTER TABLE "place" DROP COLUMN "turned";--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['nursery_value','bed_design','bed_design_version','place_check','medium_stock','water_reading'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;--> statement-breakpoint
create trigger bed_design_version_is_kept before update or delete on bed_design_version for each row execute function refuse_change();--> statement-breakpoint
create trigger medium_stock_is_kept before update or delete on medium_stock for each row execute function refuse_change();
