import { v7 as newId } from 'uuid';
import { ms, quantile } from './measure.mjs';

const ORDERS = 100;
const LINES = 5;

/** An order book of 500 lines: from going to it until its list stands, and from choosing an order until its lines do. */
export async function benchOrders(context, url) {
  const me = await (await context.request.get(`${url}/api/me`)).json();
  const at = `${url}/api/nurseries/${me.memberships[0].nurseryId}`;
  const species = (await (await context.request.get(`${at}/catalogue`)).json()).species;
  const line = (i) => ({
    id: newId(),
    speciesId: species[i % species.length].id,
    provenance: '',
    form: 'bare-root',
    fromCm: 40,
    toCm: 60,
    count: 50 + (i % 7) * 25,
    sent: 0,
    on: `2027-0${1 + (i % 3)}-10`,
    until: `2027-0${1 + (i % 3)}-28`,
    goesTo: '',
    price: 0.9,
    state: i % 2 ? 'asked' : 'promised',
  });
  const orders = Array.from({ length: ORDERS }, (_, k) => ({
    id: newId(),
    buyer: `Buyer ${k + 1}`,
    reach: '',
    note: '',
    lines: Array.from({ length: LINES }, (__, i) => line(k * LINES + i)),
  }));
  const answer = await context.request.post(`${at}/orders`, {
    data: { id: newId(), orders },
    headers: { origin: url },
  });
  if (!answer.ok()) throw new Error(await answer.text());
  const page = await context.newPage();
  await page.goto(`${url}/grow`);
  await page.locator('[data-nursery=whole]').waitFor();
  const opened = [];
  const chosen = [];
  for (let i = 0; i < 7; i++) {
    let begun = performance.now();
    await page
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('link', { name: /^Plan(?!\w)/ })
      .click();
    await page.getByTestId('orders').getByText('Buyer 1', { exact: true }).waitFor();
    opened.push(performance.now() - begun);
    begun = performance.now();
    await page
      .getByTestId('orders')
      .getByText(`Buyer ${i + 2}`, { exact: true })
      .click();
    await page.getByRole('heading', { name: `Buyer ${i + 2}` }).waitFor();
    chosen.push(performance.now() - begun);
    await page
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('link', { name: /^Grow(?!\w)/ })
      .click();
    await page.getByTestId('ground-line').waitFor();
  }
  await page.close();
  return [
    [`order book of ${ORDERS * LINES} lines, opened, p50`, ms(quantile(opened, 0.5)), '', '', '≤ 1 s'],
    ['an order of it chosen, p50', ms(quantile(chosen, 0.5)), '', '', '≤ 200 ms'],
  ];
}
