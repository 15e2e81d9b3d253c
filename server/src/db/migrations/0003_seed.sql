CREATE TABLE "layer" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"species_id" uuid NOT NULL,
	"tree" text NOT NULL,
	"branch_mm" double precision NOT NULL,
	"free_mm" double precision NOT NULL,
	"ring_mm" double precision NOT NULL,
	"pouch" text NOT NULL,
	"hormone" text NOT NULL,
	"made_on" date NOT NULL,
	"severed_on" date,
	"outcome" text,
	"pot_l" double precision,
	"note" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "layer_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "seed_lot" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"code" text NOT NULL,
	"species_id" uuid NOT NULL,
	"collected_on" date,
	"received_on" date NOT NULL,
	"seeds_per_kg" double precision NOT NULL,
	"moisture_pct" double precision,
	"store" text NOT NULL,
	"store_temp_c" double precision,
	"price" double precision,
	"provenance" jsonb NOT NULL,
	"note" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "seed_lot_nursery_id_id_pk" PRIMARY KEY("nursery_id","id"),
	CONSTRAINT "seed_lot_code" UNIQUE("nursery_id","code")
);
--> statement-breakpoint
CREATE TABLE "seed_move" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"seed_lot_id" uuid NOT NULL,
	"on_date" date NOT NULL,
	"grams" double precision NOT NULL,
	"seeds" double precision NOT NULL,
	"why" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "seed_move_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "seed_record" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"subject_id" uuid NOT NULL,
	"on_date" date NOT NULL,
	"values" jsonb NOT NULL,
	"note" text NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "seed_record_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "stock_bed" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"species_id" uuid NOT NULL,
	"name" text NOT NULL,
	"plants" integer NOT NULL,
	"planted_on" date NOT NULL,
	"yield_per_plant" double precision NOT NULL,
	"plants_per_m" double precision NOT NULL,
	"rest_share" double precision NOT NULL,
	"note" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "stock_bed_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "treatment" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"seed_lot_id" uuid NOT NULL,
	"name" text NOT NULL,
	"school" text NOT NULL,
	"phases" jsonb NOT NULL,
	"store" jsonb NOT NULL,
	"started_on" date NOT NULL,
	"grams" double precision NOT NULL,
	"seeds" double precision NOT NULL,
	"state" text DEFAULT 'under way' NOT NULL,
	"ended_on" date,
	"note" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "treatment_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "origin" text DEFAULT 'seed' NOT NULL;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "seed_lot_id" uuid;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "treatment_id" uuid;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "stock_bed_id" uuid;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "parent_lot_id" uuid;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "cutting" text;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "patch" jsonb;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "extra_winters" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "layer" ADD CONSTRAINT "layer_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "layer" ADD CONSTRAINT "layer_species" FOREIGN KEY ("nursery_id","species_id") REFERENCES "public"."species"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seed_lot" ADD CONSTRAINT "seed_lot_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seed_lot" ADD CONSTRAINT "seed_lot_species" FOREIGN KEY ("nursery_id","species_id") REFERENCES "public"."species"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seed_move" ADD CONSTRAINT "seed_move_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seed_move" ADD CONSTRAINT "seed_move_lot_fk" FOREIGN KEY ("nursery_id","seed_lot_id") REFERENCES "public"."seed_lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seed_record" ADD CONSTRAINT "seed_record_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_bed" ADD CONSTRAINT "stock_bed_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_bed" ADD CONSTRAINT "stock_bed_species" FOREIGN KEY ("nursery_id","species_id") REFERENCES "public"."species"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "treatment" ADD CONSTRAINT "treatment_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "treatment" ADD CONSTRAINT "treatment_lot_fk" FOREIGN KEY ("nursery_id","seed_lot_id") REFERENCES "public"."seed_lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "seed_move_lot" ON "seed_move" USING btree ("nursery_id","seed_lot_id");--> statement-breakpoint
CREATE INDEX "seed_record_subject" ON "seed_record" USING btree ("nursery_id","subject_id","on_date");--> statement-breakpoint
CREATE INDEX "treatment_lot" ON "treatment" USING btree ("nursery_id","seed_lot_id");--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_seed_lot" FOREIGN KEY ("nursery_id","seed_lot_id") REFERENCES "public"."seed_lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_treatment" FOREIGN KEY ("nursery_id","treatment_id") REFERENCES "public"."treatment"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_stock_bed" FOREIGN KEY ("nursery_id","stock_bed_id") REFERENCES "public"."stock_bed"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_parent" FOREIGN KEY ("nursery_id","parent_lot_id") REFERENCES "public"."lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['seed_lot','seed_move','treatment','stock_bed','layer','seed_record'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;--> statement-breakpoint
create trigger seed_move_is_kept before update or delete on seed_move for each row execute function refuse_change();
