CREATE TABLE "demo_person" (
	"email" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"nursery" text NOT NULL,
	"password" text NOT NULL,
	"place" double precision NOT NULL
);
--> statement-breakpoint
CREATE TABLE "membership" (
	"nursery_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"role" text NOT NULL,
	CONSTRAINT "membership_nursery_id_person_id_pk" PRIMARY KEY("nursery_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "nursery" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"place_name" text NOT NULL,
	"latitude_deg" double precision NOT NULL,
	"longitude_deg" double precision NOT NULL,
	"elevation_m" double precision NOT NULL,
	"time_zone" text NOT NULL,
	"units" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"password_hash" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "person_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"token_hash" text PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sign_in_try" (
	"key" text PRIMARY KEY NOT NULL,
	"hits" double precision NOT NULL,
	"resets_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "container_type" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"values" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "container_type_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "medium" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"values" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "medium_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "place" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"east_m" double precision NOT NULL,
	"north_m" double precision NOT NULL,
	"turned" boolean NOT NULL,
	"medium_id" uuid,
	"design" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "place_nursery_id_id_pk" PRIMARY KEY("nursery_id","id"),
	CONSTRAINT "place_name" UNIQUE("nursery_id","name")
);
--> statement-breakpoint
CREATE TABLE "species" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"code" text NOT NULL,
	"common" text NOT NULL,
	"latin" text NOT NULL,
	"values" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "species_nursery_id_id_pk" PRIMARY KEY("nursery_id","id"),
	CONSTRAINT "species_code" UNIQUE("nursery_id","code")
);
--> statement-breakpoint
CREATE TABLE "balance" (
	"nursery_id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"account" text NOT NULL,
	"held" bigint NOT NULL,
	CONSTRAINT "balance_nursery_id_lot_id_account_pk" PRIMARY KEY("nursery_id","lot_id","account"),
	CONSTRAINT "balance_not_below_zero" CHECK ("balance"."held" >= 0)
);
--> statement-breakpoint
CREATE TABLE "lot" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"code" text NOT NULL,
	"species_id" uuid NOT NULL,
	"sown_on" date NOT NULL,
	"seed_state" text NOT NULL,
	"target_height_cm" double precision,
	"leaf_fall_on" date,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "lot_nursery_id_id_pk" PRIMARY KEY("nursery_id","id"),
	CONSTRAINT "lot_code" UNIQUE("nursery_id","code")
);
--> statement-breakpoint
CREATE TABLE "movement" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"entry_id" uuid NOT NULL,
	"on_date" date NOT NULL,
	"from_account" text NOT NULL,
	"to_account" text NOT NULL,
	"count" bigint NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"reverses" uuid,
	CONSTRAINT "movement_nursery_id_id_pk" PRIMARY KEY("nursery_id","id"),
	CONSTRAINT "movement_reversed_once" UNIQUE("nursery_id","reverses"),
	CONSTRAINT "movement_count_positive" CHECK ("movement"."count" > 0),
	CONSTRAINT "movement_goes_somewhere" CHECK ("movement"."from_account" <> "movement"."to_account"),
	CONSTRAINT "movement_accounts" CHECK ("movement"."from_account" ~ '^(supply|seed|sown|standing|lifted|out:[a-z-]+)$' and "movement"."to_account" ~ '^(supply|seed|sown|standing|lifted|out:[a-z-]+)$')
);
--> statement-breakpoint
CREATE TABLE "observation" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"on_date" date NOT NULL,
	"values" jsonb NOT NULL,
	"height_n" integer,
	"height_mean" double precision,
	"height_sd" double precision,
	"diameter_n" integer,
	"diameter_mean" double precision,
	"diameter_sd" double precision,
	"note" text DEFAULT '' NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "observation_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "stage" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"place_id" uuid NOT NULL,
	"container_type_id" uuid,
	"trays" integer,
	"density_per_m2" double precision,
	"area_m2" double precision,
	"started_on" date NOT NULL,
	"ended_on" date,
	CONSTRAINT "stage_nursery_id_id_pk" PRIMARY KEY("nursery_id","id"),
	CONSTRAINT "stage_cells_or_bed" CHECK (("stage"."container_type_id" is not null and "stage"."trays" > 0) or ("stage"."container_type_id" is null and "stage"."density_per_m2" > 0 and "stage"."area_m2" > 0))
);
--> statement-breakpoint
CREATE TABLE "journal" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"person_id" uuid NOT NULL,
	"act" text NOT NULL,
	"subject_id" uuid NOT NULL,
	"before" jsonb,
	"after" jsonb,
	CONSTRAINT "journal_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "receipt" (
	"nursery_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"route" text NOT NULL,
	"body_hash" text NOT NULL,
	"answer" jsonb,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "receipt_nursery_id_id_pk" PRIMARY KEY("nursery_id","id")
);
--> statement-breakpoint
CREATE TABLE "weather_day" (
	"nursery_id" uuid NOT NULL,
	"day" date NOT NULL,
	"t_min_c" double precision NOT NULL,
	"t_max_c" double precision NOT NULL,
	"rain_mm" double precision,
	CONSTRAINT "weather_day_nursery_id_day_pk" PRIMARY KEY("nursery_id","day")
);
--> statement-breakpoint
ALTER TABLE "membership" ADD CONSTRAINT "membership_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "membership" ADD CONSTRAINT "membership_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "container_type" ADD CONSTRAINT "container_type_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "medium" ADD CONSTRAINT "medium_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_medium" FOREIGN KEY ("nursery_id","medium_id") REFERENCES "public"."medium"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "species" ADD CONSTRAINT "species_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "balance" ADD CONSTRAINT "balance_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "balance" ADD CONSTRAINT "balance_lot_fk" FOREIGN KEY ("nursery_id","lot_id") REFERENCES "public"."lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_species" FOREIGN KEY ("nursery_id","species_id") REFERENCES "public"."species"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_lot_fk" FOREIGN KEY ("nursery_id","lot_id") REFERENCES "public"."lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "observation" ADD CONSTRAINT "observation_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "observation" ADD CONSTRAINT "observation_lot_fk" FOREIGN KEY ("nursery_id","lot_id") REFERENCES "public"."lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stage" ADD CONSTRAINT "stage_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stage" ADD CONSTRAINT "stage_lot_fk" FOREIGN KEY ("nursery_id","lot_id") REFERENCES "public"."lot"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stage" ADD CONSTRAINT "stage_place_fk" FOREIGN KEY ("nursery_id","place_id") REFERENCES "public"."place"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stage" ADD CONSTRAINT "stage_container_fk" FOREIGN KEY ("nursery_id","container_type_id") REFERENCES "public"."container_type"("nursery_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal" ADD CONSTRAINT "journal_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "receipt" ADD CONSTRAINT "receipt_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "weather_day" ADD CONSTRAINT "weather_day_nursery_id_nursery_id_fk" FOREIGN KEY ("nursery_id") REFERENCES "public"."nursery"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "membership_person" ON "membership" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "session_person" ON "session" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "movement_lot" ON "movement" USING btree ("nursery_id","lot_id","on_date");--> statement-breakpoint
CREATE INDEX "observation_lot" ON "observation" USING btree ("nursery_id","lot_id","on_date");--> statement-breakpoint
CREATE INDEX "stage_lot" ON "stage" USING btree ("nursery_id","lot_id","started_on");--> statement-breakpoint
CREATE INDEX "stage_place" ON "stage" USING btree ("nursery_id","place_id");--> statement-breakpoint
CREATE INDEX "journal_subject" ON "journal" USING btree ("nursery_id","subject_id","at");