// A press goes to what was under it when it began, whatever arrives before it ends; keys belong to what is on top.
import { expect, test, type BrowserContext, type Locator, type Page } from './test';
import { actKeys, otherKeys } from '../src/app/keys/keys';
import { bringIn, counts, goTo, mailFile, mbox, openWith, placeLink, rows, type Mail } from './desk';

const some = (count: number): Mail[] =>
  Array.from({ length: count }, (_, n) => ({ from: `a${n}@b.test`, subject: `Message ${n}`, id: `m${n}` }));

let arrived = 0;

/** So many messages arrive, newest of all, as another tab brings them in. */
async function arrive(context: BrowserContext, count: number, answering?: string): Promise<void> {
  const other = await context.newPage();
  await other.goto('/mail');
  const list = Array.from({ length: count }, (): Mail => {
    const n = arrived++;
    return {
      id: `late${n}`,
      from: `late${n}@b.test`,
      subject: answering ? 'Re: Rope' : `Late ${n}`,
      date: new Date(Date.UTC(2026, 10, 25, 9, n)).toISOString(),
      ...(answering ? { answers: [answering] } : {}),
    };
  });
  await bringIn(other, mailFile('late.mbox', mbox(list)));
  await other.close();
}

/** The newest line of the Logbook. */
async function newestInLogbook(page: Page): Promise<string> {
  await goTo(page, '/logbook');
  return page.getByRole('main').getByText(/“/).first().innerText();
}

const rowOf = (page: Page, text: string) => rows(page).filter({ hasText: text });

test('messages arrive between the begin and the end of a press: row, box, hover button, bar, drag', async ({
  page,
  context,
}) => {
  await openWith(page, some(12));
  const inbox = async () => (await counts(page, 'Inbox')).total;
  let there = 12;
  const row = rowOf(page, 'Message 7');
  const bar = page.getByRole('toolbar', { name: 'Acts' });
  const undo = async () => {
    await expect.poll(inbox).toBe(there - 1);
    await page.keyboard.press('Control+z');
    await expect.poll(inbox).toBe(there);
    await expect(row).toHaveCount(1);
  };
  const kinds: [name: string, arrivals: number, what: () => Locator, ends: () => Promise<void>][] = [
    [
      'a row',
      1,
      () => row.getByText('Message 7').first(),
      () => expect(page.locator('article h2').first()).toHaveText('Message 7'),
    ],
    [
      'its box',
      2,
      () => row.getByRole('checkbox'),
      async () => {
        await expect(row.getByRole('checkbox')).toBeChecked();
        await page.keyboard.press('Escape');
      },
    ],
    [
      'an act on it',
      3,
      () => row.getByRole('button', { name: /^Archive/ }),
      async () => {
        await expect(page.getByText(/^Archived “Message 7”/).first()).toBeVisible();
        await undo();
      },
    ],
    [
      'the row, dragged',
      4,
      () => row.getByText('Message 7').first(),
      async () => {
        await expect(page.getByText(/^Archived “Message 7”/).first()).toBeVisible();
        await undo();
        await row.click();
      },
    ],
    [
      'an act in the bar',
      5,
      () => bar.getByRole('button', { name: /^Flag/ }),
      () => expect(page.getByText(/^Flagged “Message 7”/).first()).toBeVisible(),
    ],
  ];
  for (const [name, count, what, ends] of kinds)
    await test.step(`${name}: ${count} arrive`, async () => {
      if (count < 5) await row.hover();
      const at = await what().boundingBox();
      const [x, y] = [(at?.x ?? 0) + 6, (at?.y ?? 0) + 6];
      await page.mouse.move(x, y);
      await page.mouse.down();
      const dragged = name.endsWith('dragged');
      if (dragged) await page.mouse.move(x - 40, y + 5, { steps: 4 });
      await arrive(context, count);
      await page.bringToFront();
      there += count;
      await expect.poll(inbox).toBe(there);
      await page.waitForTimeout(100);
      if (dragged) {
        const to = await placeLink(page, 'Archive').boundingBox();
        await page.mouse.move((to?.x ?? 0) + 40, (to?.y ?? 0) + 10, { steps: 5 });
        await page.waitForTimeout(100);
      }
      await page.mouse.up();
      await ends();
    });
  expect(await newestInLogbook(page)).toContain('“Message 7”');
  // The second press of two falls on what came there by the first.
  await goTo(page, '/inbox');
  await rows(page).nth(1).hover();
  const { total } = await counts(page, 'Archive');
  const left = await inbox();
  await rows(page)
    .nth(1)
    .getByRole('button', { name: /^Archive/ })
    .dblclick();
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(total + 1);
  await page.waitForTimeout(300);
  expect((await counts(page, 'Archive')).total).toBe(total + 1);
  expect(await inbox()).toBe(left - 1);
});

test('a swipe bins the row on which the finger came down, and a conversation as it stood then', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  const rope = ['r0', 'r1'].map((id, n): Mail => ({ id, subject: 'Rope', answers: n ? ['r0'] : [] }));
  await openWith(page, [...rope, ...some(8)]);
  const touch = await context.newCDPSession(page);
  const swipe = async (text: string, arrivals: () => Promise<void>) => {
    await rowOf(page, text).scrollIntoViewIfNeeded();
    const box = await rowOf(page, text).boundingBox();
    const [x, y] = [(box?.x ?? 0) + 330, (box?.y ?? 0) + 30];
    const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', by: number) =>
      touch.send('Input.dispatchTouchEvent', { type, touchPoints: type === 'touchEnd' ? [] : [{ x: x - by, y }] });
    await send('touchStart', 0);
    for (const by of [20, 60, 120, 160]) await send('touchMove', by);
    const before = (await counts(page, 'Inbox')).total;
    await arrivals();
    await page.bringToFront();
    await expect.poll(async () => (await counts(page, 'Inbox')).total).toBeGreaterThan(before);
    await page.waitForTimeout(100);
    await send('touchEnd', 160);
  };
  await swipe('Message 3', () => arrive(context, 2));
  await expect(page.getByText(/“Message 3”/).first()).toBeAttached();
  await expect(rowOf(page, 'Message 3')).toHaveCount(0);
  await page.keyboard.press('g');
  await expect(rowOf(page, 'Rope')).toHaveCount(1);
  const gone = async () => (await counts(page, 'Bin')).total + (await counts(page, 'Archive')).total;
  const before = await gone();
  await swipe('Rope', () => arrive(context, 1, 'r1'));
  // Two were in it when the finger came down; the third is there still.
  await expect.poll(gone).toBe(before + 2);
  await expect(rowOf(page, 'Rope')).toHaveCount(1);
  await context.close();
});

test('after an act from the bar the keys are the list’s; a key that is held does it once', async ({ page }) => {
  await openWith(page, some(8));
  await rows(page).first().click();
  await page
    .getByRole('toolbar', { name: 'Acts' })
    .getByRole('button', { name: /^Archive/ })
    .click();
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(1);
  await expect(page.getByRole('grid')).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Space');
  await expect(page.getByText('1 ticked')).toBeVisible();
  await page.keyboard.press('Escape');
  // The key repeats for as long as it is held.
  for (let n = 0; n < 4; n++) await page.keyboard.down('a');
  await page.keyboard.up('a');
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(2);
  await page.keyboard.press('r');
  await page.waitForTimeout(300);
  expect((await counts(page, 'Archive')).total).toBe(2);
});

test('two digits in a row: what sends does not fall on the message that came by itself', async ({ page }) => {
  await openWith(page, some(6));
  await goTo(page, '/stamps/new');
  await page.getByLabel('Name').fill('Shred');
  await page.getByLabel('What else it does').selectOption('delete it for good');
  await page.getByRole('button', { name: 'Save the stamp' }).click();
  await goTo(page, '/inbox');
  const inbox = async () => (await counts(page, 'Inbox')).total;
  await rows(page).first().click();
  await expect(page.locator('article h2')).toHaveText('Message 5');
  await page.keyboard.press('1');
  await page.keyboard.press('1');
  await expect(page.locator('article h2')).toHaveText('Message 4');
  // It is said, and stays: what the first came to is told before it.
  await expect(page.getByText(/^“Shred” was not carried out: it deletes for good, and/).first()).toBeVisible();
  await expect.poll(inbox).toBe(5);
  // Chosen by hand it is meant.
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('article h2')).toHaveText('Message 3');
  await page.keyboard.press('1');
  await expect.poll(inbox).toBe(4);
  await expect(page.locator('article h2')).toHaveText('Message 2');
  // So it is, once it has been there for a while.
  await page.waitForTimeout(1_600);
  await page.keyboard.press('1');
  await expect.poll(inbox).toBe(3);
});

test('in the question of Not junk the digits choose, and nothing behind it hears of them', async ({ page }) => {
  await openWith(page, some(5));
  await goTo(page, '/stamps');
  await page.getByRole('button', { name: 'Take it: Not for me' }).click();
  await goTo(page, '/inbox');
  for (let n = 0; n < 3; n++) {
    await rows(page).first().click();
    await page.keyboard.press('j');
    await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(n + 1);
  }
  await goTo(page, '/junk');
  await rows(page).first().click();
  await page.keyboard.press('n');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('1');
  await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(2);
  await page.waitForTimeout(400);
  await expect(page.getByRole('dialog')).toHaveCount(0);
  expect((await counts(page, 'Junk')).total).toBe(2);
  expect((await counts(page, 'Archive')).total).toBe(0);
  // Nothing was said of a stamp.
  await expect(page.getByText(/Stamp “|“Not for me”/)).toHaveCount(0);
});

test('whatever lies over the desk has the keys: none of the sheet reaches what is behind it', async ({ page }) => {
  const rope = ['r0', 'r1'].map((id, n): Mail => ({ id, subject: 'Rope', answers: n ? ['r0'] : [] }));
  await openWith(page, [...some(4), ...rope]);
  await goTo(page, '/stamps');
  await page.getByRole('button', { name: 'Take it: Not for me' }).click();
  await goTo(page, '/inbox');
  await expect(rowOf(page, 'Rope')).toHaveCount(2);
  await page.keyboard.press('g');
  await expect(rowOf(page, 'Rope')).toHaveCount(1);
  await rowOf(page, 'Rope').click();
  const line = page.getByRole('navigation', { name: 'Sorting line and places' });
  await expect.poll(async () => (await counts(page, 'Inbox')).unread).toBe(5);
  /** What stands behind, in all that a key could have changed. */
  const behind = async () => [
    page.url(),
    await line.evaluate((element) => [...element.querySelectorAll('a')].map(({ title }) => title)),
    await rows(page).allInnerTexts(),
    await page.locator('dialog[open], [data-layer]').count(),
    await page.getByRole('textbox', { name: 'Search' }).count(),
    await page.locator('article').first().innerText(),
  ];
  const keys = [...actKeys, ...otherKeys].flatMap(({ pressed }) => (pressed === null ? [] : [pressed]));
  const written = (key: string) =>
    key
      .replace(/^shift\+(.)$/, (_, letter: string) => `Shift+${letter.toUpperCase()}`)
      .replace('ctrl+', 'Control+')
      .replace('delete', 'Delete');
  const over = ['m', 'l', 'd', 'Shift+D', 'Shift+T', '?', ':', 't', 'Shift+W', 'y', 'Shift+K', 'Shift+A'];
  for (const opener of over)
    await test.step(`what ${opener} opens`, async () => {
      await page.keyboard.press(opener);
      const top = page.locator('dialog[open], [data-layer]').last();
      await expect(top).toBeVisible();
      await expect(top.locator('[aria-busy="true"]')).toHaveCount(0);
      // Not in a field, where a letter is a letter.
      await top.evaluate((element) => {
        element.setAttribute('tabindex', '-1');
        (element as HTMLElement).focus();
      });
      const was = await behind();
      for (const key of keys) if (!['escape', 'ctrl+z', 'enter'].includes(key)) await page.keyboard.press(written(key));
      for (let digit = 1; digit <= 9; digit++) await page.keyboard.press(String(digit));
      await page.keyboard.press('Control+z');
      await page.waitForTimeout(150);
      expect(await behind()).toEqual(was);
      await page.keyboard.press('Escape');
      await expect(top).toHaveCount(0);
    });
});
