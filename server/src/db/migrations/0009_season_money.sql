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
