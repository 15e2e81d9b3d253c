import { expect, signIn, test, type Kauri } from './kauri';
import type { Page } from '@playwright/test';

interface Said {
  title: string;
  reason: string;
}

/** Today as the server says it, once nothing is being worked out any more. */
async function said(page: Page, kauri: Kauri): Promise<Said[]> {
  const me = await (await page.request.get(`${kauri.url}/api/me`)).json();
  let acts: Said[] = [];
  await expect
    .poll(async () => {
      const answer = await page.request.get(
        `${kauri.url}/api/nurseries/${me.memberships[0].nurseryId}/today`,
      );
      const { working, acts: all } = await answer.json();
      acts = all.map(({ title, reason }: Said) => ({ title, reason }));
      return working;
    })
    .toBe(false);
  return acts;
}

test('a page left open over midnight goes on with the new day', async ({ own, page, expected }) => {
  expected.faults = [/Failed to load resource/];
  await signIn(page, own, 'isla@withybeck.example', '/');
  await expect(page.getByTestId('date')).toContainText('Tue 24 Nov');
  await own.stop();
  await own.startAgain('2026-11-25');
  await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
  await expect(page.getByTestId('date')).toContainText('Wed 25 Nov');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Wed 25 Nov');
});

test.describe('the screen and the server say the same to the line', () => {
  for (const day of ['2026-11-24', '2027-02-10', '2027-05-20', '2027-08-15'])
    test(`on ${day}, north and south`, async ({ own, page }) => {
      await own.stop();
      await own.startAgain(day);
      for (const email of ['isla@withybeck.example', 'nahuel@piedraclara.example']) {
        await signIn(page, own, email, '/');
        const acts = await said(page, own);
        expect(acts.length).toBeGreaterThan(0);
        // The screen's own list is offered on paper; until then it is the server's.
        await expect(page.getByRole('button', { name: /^(On paper|En papel)$/ })).toBeVisible();
        const more = page.getByRole('button', { name: /^(Show more of|Mostrar \d+ tareas? más)/ });
        const lines = page.getByTestId(/^(lot|seed|roots|plan|planted|lifted)-act$/);
        await expect
          .poll(async () => {
            // The first forty of each group are shown at first.
            for (const one of await more.all()) await one.click();
            return lines.evaluateAll((all) =>
              all.map((line) => {
                const [title, reason] = line.querySelectorAll('a > span.flex-1 > span');
                return { title: title.textContent, reason: reason.textContent };
              }),
            );
          })
          .toEqual(acts);
      }
    });
});
