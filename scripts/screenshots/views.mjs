const lot = (code) => async (page) => {
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Grow' }).click();
  await page.getByTestId('lots').getByText(code, { exact: true }).click();
  await page.getByRole('heading', { name: code, level: 1 }).waitFor();
  await page.getByTestId('ground-line').waitFor();
};
const go = (path) => (page) => page.goto(path);

/** A nursery’s first minutes: set up, and what it is led by. */
async function firstHour(page) {
  for (const [label, text] of [
    ['Nursery', 'Beckside'],
    ['Place', 'Upper Dale'],
    ['Latitude °', '54.6'],
    ['Longitude °', '-2.4'],
    ['Height, m', '185'],
    ['Time zone', 'Europe/London'],
    ['Your name', 'Rowan'],
    ['E-mail', 'rowan@beckside.example'],
    ['Password', 'a sound password'],
  ])
    await page.getByLabel(label).fill(text);
  await page.getByRole('button', { name: 'Open the yard' }).click();
  await page.getByTestId('first-hour').waitFor();
}

/** A lot as it is come by where the stations are below. */
const lotInHand = (code) => async (page) => {
  await page.goto('/grow');
  await page.getByTestId('lots').getByText(code, { exact: true }).click();
  await page.getByRole('heading', { name: code, level: 1 }).waitFor();
};

const roots = (code) => async (page) => {
  await page.goto('/roots');
  await page.getByTestId('root-lots').getByText(code, { exact: true }).click();
  await page.getByRole('heading', { name: code, level: 1 }).waitFor();
};

/**
 * The main views, each as it is got to from the first page. `shots` are several, side by side in one picture: in the
 * hand or at the desk, of the demo or of a nursery that begins; `paper` is as it is printed.
 */
export const views = [
  { name: 'today', go: go('/today') },
  { name: 'yard-bed', go: go('/yard') },
  { name: 'water', go: go('/yard/water') },
  {
    // In the nursery that speaks Spanish.
    name: 'seed-store',
    who: 'nahuel@piedraclara.example',
    go: async (page) => {
      await page.goto('/seed');
      await page.getByTestId('seed-lots').getByText('S-NPU-01').click();
      await page.getByRole('heading', { name: 'Lenga', level: 1 }).waitFor();
      await page.getByTestId('decision').waitFor();
    },
  },
  {
    name: 'dormancy',
    go: async (page) => {
      await page.goto('/seed/clock');
      await page.getByTestId('batches').getByText('Leaf tub', { exact: true }).click();
      await page.getByRole('heading', { name: 'Leaf tub', level: 1 }).waitFor();
      await page.getByTestId('phases').waitFor();
      await page.getByTestId('begin').waitFor();
    },
  },
  {
    name: 'sowing-desk',
    go: async (page) => {
      await page.goto('/seed/desk');
      await page.getByLabel('Species', { exact: true }).click();
      await page.getByRole('option', { name: 'Rowan', exact: true }).click();
      await page.getByTestId('bed-answer').waitFor();
    },
  },
  { name: 'lot-in-cells', go: lot('26-SOR-03') },
  {
    name: 'orders',
    go: async (page) => {
      await page.goto('/plan');
      await page.getByTestId('met').first().waitFor();
    },
  },
  {
    name: 'when-to-sow',
    go: async (page) => {
      await page.goto('/plan/when');
      await page.getByLabel('For', { exact: true }).click();
      await page.getByRole('option').filter({ hasText: 'Silver birch' }).last().click();
      await page.getByTestId('when-tag').waitFor();
      await page.getByTestId('needs').getByText('enough with').waitFor();
    },
  },
  {
    name: 'board',
    go: async (page) => {
      await page.goto('/plan/board');
      await page.getByTestId('board').waitFor();
    },
  },
  {
    name: 'season-plan',
    go: async (page) => {
      await page.goto('/plan/season');
      await page.getByTestId('figures').nth(1).waitFor();
    },
  },
  {
    name: 'lift',
    go: async (page) => {
      await page.goto('/lift');
      await page.getByRole('heading', { name: 'Lift from this lot' }).waitFor();
    },
  },
  {
    name: 'root-bench',
    go: async (page) => {
      await roots('26-SOR-03')(page);
      await page.keyboard.press('r');
      const rosette = page.getByTestId('rosette');
      await rosette.focus();
      // Seven roots, five of them straight: path by its number, then laid and turned on.
      for (const path of [1, 1, 4, 1, 1, 3, 1]) {
        await rosette.press(String(path));
        await rosette.press('Enter');
        await rosette.press('Shift+ArrowRight');
        for (let i = 0; i < 4; i++) await rosette.press('ArrowRight');
      }
    },
  },
  {
    name: 'planting',
    go: async (page) => {
      await page.goto('/planted');
      await page.getByTestId('plantings').getByText('Weir bank').click();
      await page.getByTestId('replace').waitFor();
    },
  },
  {
    name: 'lived',
    go: async (page) => {
      await page.goto('/planted/lived');
      await page.getByTestId('lived').waitFor();
    },
  },
  {
    name: 'lifting-week',
    go: async (page) => {
      await page.goto('/lift/order');
      await page.getByTestId('lifting-days').scrollIntoViewIfNeeded();
    },
  },
  {
    name: 'lifted',
    go: async (page) => {
      await page.goto('/lift/lifted');
      await page.getByTestId('keeps').first().waitFor();
    },
  },
  {
    name: 'in-the-yard',
    shots: [
      go('/today'),
      // A tag that is typed, where no camera is.
      async (page) => {
        await page.goto('/scan');
        await page.getByRole('textbox').last().fill('26-SOR-03');
        await page.getByRole('textbox').last().press('Enter');
        await page.getByRole('link', { name: '26-SOR-03', exact: true }).waitFor();
      },
      async (page) => {
        await page.goto('/grow');
        await page.getByTestId('lots').getByText('26-TCO-01', { exact: true }).click();
        await page.getByRole('heading', { name: '26-TCO-01', level: 1 }).waitFor();
        await page.keyboard.press('m');
        const input = page.getByLabel(/of plant/);
        for (const value of ['22', '25', '19', '23', '21', '24']) {
          await input.fill(value);
          await input.press('Enter');
        }
      },
      // Counted without a network, and what waits to be sent.
      async (page) => {
        await lotInHand('26-SOR-03')(page);
        await page.keyboard.press('c');
        await page.getByLabel('Seedlings standing now').waitFor();
        // The server alone is out of reach: the sheet of what waits is fetched yet.
        await page.route('**/api/**', (route) => route.abort());
        await page.getByRole('button', { name: 'One less' }).click();
        await page.getByRole('button', { name: 'Keep the count' }).click();
        await page.getByTestId('network').filter({ hasText: '1 to send' }).click();
        await page.getByTestId('waiting').waitFor();
      },
      // At the bed: a lift counted by thumb.
      async (page) => {
        await lotInHand('26-ACA-01')(page);
        await page.keyboard.press('l');
        await page.getByRole('link', { name: 'Tally at the bed' }).click();
        await page.getByTestId('tally').waitFor();
      },
      async (page) => {
        await page.goto('/planted');
        await page.getByTestId('plantings').getByText('Weir bank').click();
        await page.getByRole('button', { name: 'Walk it' }).click();
        await page.getByRole('button', { name: 'Begin' }).click();
        await page.getByTestId('tree').waitFor();
        for (const state of [/^missing/, /^missing/, /^dead/])
          await page.getByRole('button', { name: state }).click();
        await page.getByTestId('unsent').waitFor({ state: 'detached' });
      },
    ].map((go) => ({ size: 'phone', go })),
  },
  {
    name: 'at-the-desk',
    shots: [
      { size: 'desk', empty: true, go: firstHour },
      {
        size: 'desk',
        go: async (page) => {
          await page.goto('/grow');
          await page.getByTestId('lots').getByText('26-SOR-03', { exact: true }).click();
          await page.getByRole('button', { name: 'Filter, sort and group' }).click();
          await page.getByLabel('Order', { exact: true }).waitFor();
        },
      },
      { size: 'paper', go: go('/today') },
    ],
  },
];
