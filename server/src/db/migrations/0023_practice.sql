CREATE TABLE "practice" (
	"person_id" uuid PRIMARY KEY NOT NULL,
	"state" text NOT NULL,
	"south" boolean NOT NULL,
	"language" text NOT NULL,
	"practice_nursery_id" uuid,
	"asked_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "nursery" ADD COLUMN "practice" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "practice" ADD CONSTRAINT "practice_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- What is added to and never changed lets go of a nursery that was made to practise in, when its whole is done away with.
create or replace function refuse_change() returns trigger language plpgsql as $$
begin
  if tg_op = 'DELETE' and current_setting('kauri.dropping', true) = 'on'
    and exists (select 1 from nursery where id = old.nursery_id and practice) then
    return old;
  end if;
  raise exception '% is added to, never changed', tg_table_name using errcode = 'restrict_violation';
end $$;
