CREATE TABLE "season_proposal" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"state" text NOT NULL,
	"asked" jsonb NOT NULL,
	"step" text NOT NULL,
	"share" double precision DEFAULT 0 NOT NULL,
	"made_on" date NOT NULL,
	"fault" text,
	"result" jsonb,
	"chosen" boolean DEFAULT false NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"touched_at" timestamp with time zone,
	CONSTRAINT "season_proposal_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
ALTER TABLE "season_proposal" ADD CONSTRAINT "season_proposal_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
do $$
declare t text;
begin
  foreach t in array array['season_proposal'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;
