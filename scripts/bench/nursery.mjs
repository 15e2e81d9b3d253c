import { loadSource } from './load.mjs';

/*
 * A nursery of many lots, made by one rule from their numbers: the same at every run. Rows are written straight to the
 * database by the thousand, as a year of work would have left them.
 */

/** A UUIDv7, made in SQL from a counter. */
const id = (kind, n) => `('019aa5b0-${kind}-7000-8000-' || lpad(to_hex((${n})::bigint), 12, '0'))::uuid`;

const SAMPLES = 20;

const bedDesign = {
  schema: 1,
  measured: 'outside',
  lengthMm: 3000,
  widthMm: 1200,
  tiers: ['2x8', '2x8'],
  layers: [{ kind: 'mesh', openingMm: [12.7, 12.7], wireMm: 1.05 }],
  fillBelowRimMm: 20,
  ground: 'paving',
  airGapMm: 60,
  lidAboveRimMm: 400,
};
const benchDesign = { schema: 1, lengthMm: 7200, widthMm: 1550 };

/**
 * Fills a nursery that `setup` made: lots in beds and on benches by turns, of every species and container, some sown last
 * season, each with counts, samples and pulls, and ten years of weather.
 */
export async function fillNursery(
  client,
  nurseryId,
  { lots, places = 500, records = 200_000, today, weather },
) {
  const ids = async (table) =>
    (await client.query(`select id from ${table} where nursery_id = $1 order by id`, [nurseryId])).rows.map(
      (row) => row.id,
    );
  const [species, containers] = [await ids('species'), await ids('container_type')];
  await client.query(
    `insert into place (nursery_id, id, kind, name, east_m, north_m, angle_deg, design)
     select $1, ${id('0001', 'n')}, case when n % 2 = 0 then 'bed' else 'bench' end,
       case when n % 2 = 0 then 'Bed ' else 'Bench ' end || (n / 2 + 1),
       (n % 25) * 6, (n / 25) * 8, 0, case when n % 2 = 0 then $3::jsonb else $4::jsonb end
     from generate_series(0, $2::int - 1) n`,
    [nurseryId, places, JSON.stringify(bedDesign), JSON.stringify(benchDesign)],
  );
  // Every fifth lot is last season's.
  const sown = `($2::date - 230 - (n % 40) - case when n % 5 = 0 then 365 else 0 end)`;
  await client.query(
    `insert into lot (nursery_id, id, code, species_id, sown_on, seed_state, target_height_cm)
     select $1, ${id('0002', 'n')}, 'L-' || lpad(n::text, 5, '0'), ($3::uuid[])[1 + n % $4::int], ${sown}, 'ready', 30
     from generate_series(1, $5::int) n`,
    [nurseryId, today, species, species.length, lots],
  );
  await client.query(
    `insert into stage (nursery_id, id, lot_id, place_id, container_type_id, trays, density_per_m2, area_m2, started_on)
     select $1, ${id('0003', 'n')}, ${id('0002', 'n')}, ${id('0001', 'n % $3::int')},
       case when (n % $3::int) % 2 = 1 then ($4::uuid[])[1 + n % $5::int] end,
       case when (n % $3::int) % 2 = 1 then 2 end,
       case when (n % $3::int) % 2 = 0 then 200 end, case when (n % $3::int) % 2 = 0 then 0.8 end, ${sown}
     from generate_series(1, $6::int) n`,
    [nurseryId, today, places, containers, containers.length, lots],
  );
  await client.query(
    `insert into movement (nursery_id, id, lot_id, entry_id, on_date, from_account, to_account, count)
     select $1, ${id('0004', 'n * 4 + k')}, ${id('0002', 'n')}, ${id('0006', 'n * 4 + k')},
       ${sown} + case when k = 3 then 35 else 0 end,
       (array['supply','seed','sown'])[k], (array['seed','sown','standing'])[k], (array[1000,1000,120])[k]
     from generate_series(1, $3::int) n, generate_series(1, 3) k order by n, k`,
    [nurseryId, today, lots],
  );
  await client.query(
    `insert into observation (nursery_id, id, lot_id, kind, on_date, "values")
     select $1, ${id('0007', 'n')}, ${id('0002', 'n')}, 'emergence', ${sown} + 35,
       '{"kind":"emergence","counted":120,"multi":null,"damaged":null,"patches":[]}'::jsonb
     from generate_series(1, $3::int) n`,
    [nurseryId, today, lots],
  );
  // Twenty samples a lot; the rest of a year's records are waterings by hand.
  const samples = Math.min(SAMPLES, Math.max(1, Math.floor(records / lots) - 3));
  await client.query(
    `insert into observation (nursery_id, id, lot_id, kind, on_date, "values", height_n, height_mean, height_sd)
     select $1, ${id('0005', 'n * 1000 + k')}, ${id('0002', 'n')}, 'size', ${sown} + 50 + (k * 150) / ${samples},
       jsonb_build_object('kind', 'size', 'heightsCm', jsonb_build_array(10, 12, 14), 'diametersMm', '[]'::jsonb),
       3, 4 + k * 20.0 / ${samples} + n % 5, 2
     from generate_series(1, $3::int) n, generate_series(1, ${samples}) k`,
    [nurseryId, today, lots],
  );
  const waterings = Math.max(0, Math.floor(records / lots) - samples - 2);
  await client.query(
    `insert into observation (nursery_id, id, lot_id, kind, on_date, "values")
     select $1, ${id('0009', 'n * 1000 + k')}, ${id('0002', 'n')}, 'care', ${sown} + 40 + (k * 180) / ${Math.max(1, waterings)},
       '{"kind":"care","done":{"what":"water","mm":8}}'::jsonb
     from generate_series(1, $3::int) n, generate_series(1, ${waterings}) k`,
    [nurseryId, today, lots],
  );
  await client.query(
    `insert into observation (nursery_id, id, lot_id, kind, on_date, "values")
     select $1, ${id('0008', 'n')}, ${id('0002', 'n')}, 'pull', ${sown} + 120, '{"kind":"pull","scores":[1,2,2],"spoiled":0}'::jsonb
     from generate_series(1, $3::int) n where (n % $4::int) % 2 = 1 and n % 3 = 0`,
    [nurseryId, today, lots, places],
  );
  await client.query(
    `insert into weather_day (nursery_id, day, t_min_c, t_max_c, rain_mm)
     select $1, $2::date - (array_length($3::float8[], 1) - i), ($3::float8[])[i], ($4::float8[])[i], 0
     from generate_series(1, array_length($3::float8[], 1)) i`,
    [nurseryId, today, weather.tMinC, weather.tMaxC],
  );
  await client.query('analyze');
}

export const BENCH_DAY = '2026-11-24';
export const benchPerson = { email: 'bench@bench.example', password: 'a bench of tests' };
const NURSERY = '019aa5b0-0000-7000-8000-00000000abcd';

/**
 * The nursery of a server’s database, made and filled where it is not there yet.
 * @param owner a pool on the same database, as its owner
 * @returns the nursery’s id, and the cookie of its owner’s session
 */
export async function openNursery(server, owner, { lots, records }) {
  const post = (path, body) =>
    fetch(`${server.url}/api/${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: server.url },
      body: JSON.stringify(body),
    });
  const { rowCount } = await owner.query('select 1 from lot where nursery_id = $1 limit 1', [NURSERY]);
  if (rowCount === 0) {
    const answer = await post('setup', {
      nursery: {
        id: NURSERY,
        name: 'Bench',
        placeName: 'Bench',
        latitudeDeg: 54.6,
        longitudeDeg: 0,
        elevationM: 100,
        timeZone: 'Europe/London',
        units: 'metric',
      },
      person: { id: '019aa5b0-0009-7000-8000-000000000001', name: 'Bench', ...benchPerson },
    });
    if (!answer.ok) throw new Error(await answer.text());
    const core = await loadSource('core/src/index.ts');
    const weather = core.generateWeather(core.roughNormals(54.6, 185), core.dayOf(BENCH_DAY) - 3652, 3653, 7);
    await fillNursery(owner, NURSERY, {
      lots,
      records,
      today: BENCH_DAY,
      weather: { tMinC: [...weather.tMinC], tMaxC: [...weather.tMaxC] },
    });
  }
  const signedIn = await post('sign-in', benchPerson);
  if (!signedIn.ok) throw new Error(await signedIn.text());
  return { nurseryId: NURSERY, cookie: signedIn.headers.getSetCookie()[0].split(';')[0] };
}
