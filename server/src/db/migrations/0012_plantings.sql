CREATE TABLE "planted_part" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"planting_id" uuid NOT NULL,
	"parcel_id" uuid NOT NULL,
	"at" bigint GENERATED ALWAYS AS IDENTITY (sequence name "planted_part_at_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"on_date" date NOT NULL,
	"count" bigint NOT NULL,
	"guard" text NOT NULL,
	"guard_now" text NOT NULL,
	"stake" text NOT NULL,
	"planter" text NOT NULL,
	"note" text NOT NULL,
	"person_id" uuid NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "planted_part_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "planting" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"where_words" text NOT NULL,
	"purpose" text NOT NULL,
	"ground" text NOT NULL,
	"mulch" text NOT NULL,
	"layout" jsonb NOT NULL,
	"note" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "planting_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "walk" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"planting_id" uuid NOT NULL,
	"on_date" date NOT NULL,
	"kind" text NOT NULL,
	"trees" jsonb NOT NULL,
	"again" uuid,
	"note" text NOT NULL,
	"person_id" uuid NOT NULL,
	"begun_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone,
	"struck_at" timestamp with time zone,
	CONSTRAINT "walk_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "walk_tree" (
	"nursery_id" uuid NOT NULL,
	"walk_id" uuid NOT NULL,
	"part_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"state" text NOT NULL,
	"cause" text,
	"note" text NOT NULL,
	"lives_again" boolean NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "walk_tree_nursery_id_walk_id_part_id_number_pk" PRIMARY KEY("nursery_id","walk_id","part_id","number")
);
--> statement-breakpoint
ALTER TABLE "movement" DROP CONSTRAINT "movement_accounts";--> statement-breakpoint
ALTER TABLE "planted_part" ADD CONSTRAINT "planted_part_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "planted_part" ADD CONSTRAINT "planted_part_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "planted_part" ADD CONSTRAINT "planted_part_planting_fk" FOREIGN KEY ("nursery_id","planting_id") REFERENCES "public"."planting"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "planted_part" ADD CONSTRAINT "planted_part_parcel_fk" FOREIGN KEY ("nursery_id","parcel_id") REFERENCES "public"."parcel"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "planting" ADD CONSTRAINT "planting_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "walk" ADD CONSTRAINT "walk_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "walk" ADD CONSTRAINT "walk_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "walk" ADD CONSTRAINT "walk_planting_fk" FOREIGN KEY ("nursery_id","planting_id") REFERENCES "public"."planting"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "walk_tree" ADD CONSTRAINT "walk_tree_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "walk_tree" ADD CONSTRAINT "walk_tree_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "walk_tree" ADD CONSTRAINT "walk_tree_walk_fk" FOREIGN KEY ("nursery_id","walk_id") REFERENCES "public"."walk"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "walk_tree" ADD CONSTRAINT "walk_tree_part_fk" FOREIGN KEY ("nursery_id","part_id") REFERENCES "public"."planted_part"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "planted_part_planting" ON "planted_part" USING btree ("nursery_id","planting_id");--> statement-breakpoint
CREATE UNIQUE INDEX "planting_name" ON "planting" USING btree ("nursery_id","name");--> statement-breakpoint
CREATE INDEX "walk_planting" ON "walk" USING btree ("nursery_id","planting_id");--> statement-breakpoint
CREATE UNIQUE INDEX "walk_one_under_way" ON "walk" USING btree ("nursery_id","planting_id") WHERE ended_at is null and struck_at is null;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_accounts" CHECK ("movement"."from_account" ~ '^(supply|seed|sown|standing|lifted|sent|planted|out:[a-z-]+)$' and "movement"."to_account" ~ '^(supply|seed|sown|standing|lifted|sent|planted|out:[a-z-]+)$');--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['planting','planted_part','walk','walk_tree'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;
