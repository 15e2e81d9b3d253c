-- A nursery brought in from an archive has its movements all at once, in no order: what lies in each account and
-- parcel is then summed up once behind them, under the same checks, instead of following each.
drop trigger movement_keeps_balance on movement;
--> statement-breakpoint
create trigger movement_keeps_balance after insert on movement for each row
  when (coalesce(current_setting('kauri.restoring', true), '') <> 'on') execute function keep_balance();
--> statement-breakpoint
drop trigger movement_keeps_parcel on movement;
--> statement-breakpoint
create trigger movement_keeps_parcel after insert on movement for each row
  when (new.parcel_id is not null and coalesce(current_setting('kauri.restoring', true), '') <> 'on') execute function keep_parcel();
--> statement-breakpoint
drop trigger aside_keeps_parcel on parcel_aside;
--> statement-breakpoint
create trigger aside_keeps_parcel after update of count or delete on parcel_aside for each row execute function keep_aside();
--> statement-breakpoint
create trigger aside_new_keeps_parcel after insert on parcel_aside for each row
  when (coalesce(current_setting('kauri.restoring', true), '') <> 'on') execute function keep_aside();
--> statement-breakpoint
create function restore_sums() returns void language plpgsql security definer set search_path = public, pg_temp as $$
declare
  n uuid := current_nursery();
begin
  insert into balance (nursery_id, lot_id, account, held)
    select n, lot_id, account, sum(count) from (
      select lot_id, to_account as account, count from movement where nursery_id = n and to_account <> 'supply'
      union all
      select lot_id, from_account, -count from movement where nursery_id = n and from_account <> 'supply'
    ) moved group by lot_id, account;
  insert into parcel_held (nursery_id, parcel_id, held, aside)
    select n, m.parcel_id,
      sum(case when m.to_account = 'lifted' then m.count when m.from_account = 'lifted' then -m.count else 0 end),
      coalesce((select sum(a.count) from parcel_aside a where a.nursery_id = n and a.parcel_id = m.parcel_id), 0)
    from movement m where m.nursery_id = n and m.parcel_id is not null group by m.parcel_id;
end $$;
--> statement-breakpoint
-- How many changes the tables have seen: an archive goes only where they are the same.
create function schema_number() returns int language sql stable security definer set search_path = public, pg_temp as
$$ select count(*)::int from drizzle.__drizzle_migrations $$;
