-- Row-level security: every row belongs to a nursery, and a query that forgets to say so sees nothing.
-- The server sets kauri.nursery and kauri.person per transaction. Policies ask through a sub-select, so that
-- the setting is read once a query and not once a row.

create function current_nursery() returns uuid language sql stable parallel safe as
$$ select nullif(current_setting('kauri.nursery', true), '')::uuid $$;
--> statement-breakpoint
create function current_person() returns uuid language sql stable parallel safe as
$$ select nullif(current_setting('kauri.person', true), '')::uuid $$;
--> statement-breakpoint
do $$
declare t text;
begin
  foreach t in array array['species','medium','container_type','place','lot','stage','movement','balance','observation','weather_day','journal','receipt'] loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_nursery on %I using (nursery_id = (select current_nursery())) with check (nursery_id = (select current_nursery()))', t);
  end loop;
end $$;
--> statement-breakpoint
alter table membership enable row level security;
--> statement-breakpoint
alter table membership force row level security;
--> statement-breakpoint
create policy own_membership on membership
  using (nursery_id = current_nursery() or person_id = current_person())
  with check (nursery_id = current_nursery());
--> statement-breakpoint
alter table nursery enable row level security;
--> statement-breakpoint
alter table nursery force row level security;
--> statement-breakpoint
create policy own_nursery on nursery
  using (id = current_nursery() or id in (select nursery_id from membership where person_id = current_person()))
  with check (id = current_nursery());
--> statement-breakpoint
-- The ledger: balances follow movements, one lot at a time, and the check on balance refuses a fall below zero.
create function keep_balance() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  -- Not FOR UPDATE: the movement's own foreign key holds the lot's key, and two writers would wait on each other.
  perform 1 from lot where nursery_id = new.nursery_id and id = new.lot_id for no key update;
  if new.from_account <> 'supply' then
    update balance set held = held - new.count
      where nursery_id = new.nursery_id and lot_id = new.lot_id and account = new.from_account;
    if not found then
      raise exception 'account % holds nothing', new.from_account
        using errcode = 'check_violation', constraint = 'balance_not_below_zero', table = 'balance';
    end if;
  end if;
  if new.to_account <> 'supply' then
    insert into balance (nursery_id, lot_id, account, held)
      values (new.nursery_id, new.lot_id, new.to_account, new.count)
      on conflict (nursery_id, lot_id, account) do update set held = balance.held + excluded.held;
  end if;
  return new;
end $$;
--> statement-breakpoint
create trigger movement_keeps_balance after insert on movement for each row execute function keep_balance();
--> statement-breakpoint
create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception '% is added to, never changed', tg_table_name using errcode = 'restrict_violation';
end $$;
--> statement-breakpoint
create trigger movement_is_kept before update or delete on movement for each row execute function refuse_change();
--> statement-breakpoint
create trigger journal_is_kept before update or delete on journal for each row execute function refuse_change();
--> statement-breakpoint
-- Whether anyone has ever signed up; asked before anyone is signed in.
create function is_set_up() returns boolean language sql stable as $$ select exists (select 1 from person) $$;
