// On a telephone: 390x844, by touch.
import { expect, test } from './test';
import { goTo, openDemo, openWith, rows } from './desk';

test('390x844: the line is a drawer, a message fills the screen, and nothing runs over the edge', async ({
  browser,
}) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true });
  await openDemo(page);
  const wide = () => page.evaluate(() => document.documentElement.scrollWidth);
  expect(await wide()).toBe(390);
  await rows(page).first().tap();
  await expect(page.getByRole('article')).toBeVisible();
  await expect(page.getByRole('grid')).toBeHidden();
  expect(await wide()).toBe(390);
  await page.getByRole('button', { name: 'Archive' }).tap();
  await expect(page.getByText(/^Archived “/).first()).toBeAttached();
  await page.getByRole('link', { name: 'Back to the list' }).tap();
  await expect(page.getByRole('grid')).toBeVisible();
  await page.getByRole('button', { name: 'Line and places' }).tap();
  await page.getByRole('link', { name: 'Rules', exact: false }).first().tap();
  await expect(page.getByRole('heading', { name: 'Rules', level: 1 })).toBeVisible();
  expect(await wide()).toBe(390);
  await page.close();
});

test('390x844: whatever is pressed has 24 px, no page scrolls sideways, acts have words, a long press ticks', async ({
  browser,
}) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  await openDemo(page);
  const pages = [
    '/inbox',
    '/accounts',
    '/register',
    '/rules',
    '/junk-filter',
    '/labels',
    '/lanes',
    '/senders',
    '/logbook',
  ];
  pages.push(
    '/stamps',
    '/stamps/new',
    '/agenda?view=week',
    '/agenda',
    '/mail',
    '/desk',
    '/setup',
    '/clear-out',
    '/where',
    '/contacts',
    '/telling',
    '/second-look',
  );
  for (const address of pages) {
    await goTo(page, address);
    // Charts and lists come after their page.
    await page.waitForTimeout(400);
    const small = await page.evaluate(() =>
      [...document.querySelectorAll('button, a, input, select')].flatMap((element) => {
        const { width, height } = element.getBoundingClientRect();
        const hidden = width <= 1 || height <= 1 || getComputedStyle(element).visibility === 'hidden';
        return hidden || (width >= 24 && height >= 24)
          ? []
          : [`${element.tagName} ${element.textContent} ${width}x${height}`];
      }),
    );
    expect(small, address).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), address).toBe(390);
    const sideways = await page.evaluate(() =>
      [...document.querySelectorAll('main, main > div, main > div > div')]
        .filter((element) => element.scrollWidth > element.clientWidth + 1 && !element.matches('.overflow-x-auto'))
        .filter((element) => ['auto', 'scroll'].includes(getComputedStyle(element).overflowX))
        .map((element) => element.className),
    );
    expect(sideways, address).toEqual([]);
  }
  await goTo(page, '/inbox');
  const row = rows(page).nth(2);
  await expect(row.getByRole('checkbox')).toBeVisible();
  const { x = 0, y = 0 } = (await row.boundingBox()) ?? {};
  const touch = await page.context().newCDPSession(page);
  const points = [{ x: x + 200, y: y + 30 }];
  await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: points });
  await expect(row.getByRole('checkbox')).toBeChecked();
  await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await expect(page.getByText('1 ticked')).toBeVisible();
  // It was no press: nothing is open.
  await expect(page.getByRole('grid')).toBeVisible();
  const acts = page.getByRole('toolbar', { name: 'Acts' });
  for (const word of ['Archive', 'Bin', 'Label', 'Move'])
    await expect(acts.getByText(word, { exact: true })).toBeInViewport();
  await page.close();
});

test('text that flows is put together; on a telephone paragraphs that were broken by hand flow, too', async ({
  page,
}) => {
  const broken = 'the ferry of Tuesday will not sail from the usual berth, since\nthe ramp there is being painted.';
  await openWith(page, [
    { id: 'f', extra: 'Content-Type: text/plain; format=flowed\n', text: 'One line that \ngoes on \nand ends.\nTwo' },
    { id: 'h', text: broken },
  ]);
  const text = page.getByRole('article').locator('[dir="auto"].whitespace-pre-wrap');
  await rows(page).filter({ hasText: 'Message f' }).click();
  await expect(text).toHaveText('One line that goes on and ends.\nTwo');
  await rows(page).filter({ hasText: 'Message h' }).click();
  await expect(text).toHaveText(broken);
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(text).toHaveText(broken.replace('\n', ' '));
});
