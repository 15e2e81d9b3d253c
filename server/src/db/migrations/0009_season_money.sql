-- Lines of orders that no lot was set against yet.
alter table tree_order no force row level security;--> statement-breakpoint
update tree_order set lines = coalesce((
  select jsonb_agg('{"lots": []}'::jsonb || line order by at)
  from jsonb_array_elements(lines) with ordinality as l(line, at)), '[]');--> statement-breakpoint
alter table tree_order force row level security;--> statement-breakpoint
-- Plans made before money was counted: nothing was bought in, what they cost is not known.
alter table season_proposal no force row level security;--> statement-breakpoint
update season_proposal set
  asked = '{"buyTimes": null, "spend": null, "seedInStore": false}'::jsonb || asked,
  result = case when result is null then null else
    '{"spent": null, "paid": null, "failed": []}'::jsonb || jsonb_set(result, '{lines}', coalesce((
      select jsonb_agg(
        '{"bought": 0}'::jsonb || case
          when jsonb_typeof(line -> 'frees') = 'object' then jsonb_set(line, '{frees,things}', '[]')
          else line
        end order by at)
      from jsonb_array_elements(result -> 'lines') with ordinality as l(line, at)
    ), '[]')) end;--> statement-breakpoint
alter table season_proposal force row level security;
