CREATE TABLE "tree_order" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"buyer" text NOT NULL,
	"reach" text NOT NULL,
	"note" text NOT NULL,
	"lines" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"taken_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "tree_order_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
ALTER TABLE "tree_order" ADD CONSTRAINT "tree_order_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['tree_order'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;
