CREATE TABLE "sending_return" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"sending_id" uuid NOT NULL,
	"on_date" date NOT NULL,
	"wanted_again" boolean,
	"lowered" integer DEFAULT 0 NOT NULL,
	"fell_from" text,
	"note" text NOT NULL,
	"person_id" uuid NOT NULL,
	"written_at" timestamp with time zone DEFAULT now() NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "sending_return_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
ALTER TABLE "parcel" ADD COLUMN "came_out_of" uuid;--> statement-breakpoint
ALTER TABLE "sending_return" ADD CONSTRAINT "sending_return_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sending_return" ADD CONSTRAINT "sending_return_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sending_return" ADD CONSTRAINT "sending_return_fk" FOREIGN KEY ("nursery_id","sending_id") REFERENCES "public"."sending"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "sending_return_of" ON "sending_return" USING btree ("nursery_id","sending_id");--> statement-breakpoint
ALTER TABLE "parcel" ADD CONSTRAINT "parcel_came_out_of_fk" FOREIGN KEY ("nursery_id","came_out_of") REFERENCES "public"."parcel"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "parcel_entry" ON "parcel" USING btree ("nursery_id","entry_id");--> statement-breakpoint
-- Guarded as the first tables are in 0001_guards.
alter table sending_return enable row level security;--> statement-breakpoint
alter table sending_return force row level security;--> statement-breakpoint
create policy own_nursery on sending_return using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()));
