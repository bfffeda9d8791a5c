// Trays, the hold and the timetable, through the real page.
import { expect, test, type Page } from './test';
import {
  bringIn,
  dragRow,
  counts,
  goTo,
  mailFile,
  mbox,
  moveClock,
  openDemoAnew,
  openWith,
  placeLink,
  rows,
  undoButton,
  type Mail,
} from './desk';
import { ownServer } from './ownServer';

const hour = 3_600_000;
const day = 24 * hour;

/** Mail that comes now, by the clock of this machine, so many milliseconds later. */
async function comes(page: Page, list: Mail[], later = 0): Promise<void> {
  await goTo(page, '/mail');
  const date = new Date(Date.now() + later).toISOString();
  await bringIn(page, mailFile('come.mbox', mbox(list.map((one) => ({ date, ...one })))));
  await goTo(page, '/inbox');
}

const bulletin = (id: string): Mail => ({ id, from: 'News <news@bulletin.test>', subject: `Bulletin ${id}` });
const trayRow = (page: Page, name: string) =>
  rows(page)
    .filter({ has: page.getByLabel('Tray') })
    .filter({ hasText: name });

/** The next Monday at seven after a moment, on the machine’s clock. */
function nextMonday(after: number): number {
  const at = new Date(after);
  at.setHours(7, 0, 0, 0);
  while (at.getDay() !== 1 || at.getTime() <= after) at.setDate(at.getDate() + 1);
  return at.getTime();
}

/** Puts the open message into a new tray, and what comes from its sender from now on. */
async function intoNewTray(page: Page, name: string): Promise<void> {
  await page.keyboard.press('Shift+T');
  const dialog = page.getByRole('dialog', { name: 'Put it in a tray' });
  await dialog.getByLabel('Its name').fill(name);
  await dialog.getByLabel(/^news@bulletin\.test/).check();
  await dialog.getByLabel(/^With the 1 more of them in the Inbox/).check();
  await dialog.getByRole('button', { name: 'Put in tray' }).click();
}

test('a tray from a message: it waits and can be looked at, Monday 07:00 comes, and it is one row that takes every act', async ({
  page,
}) => {
  await openWith(page, [bulletin('1'), bulletin('2'), { id: 'a', subject: 'Berth 4' }]);
  await rows(page).filter({ hasText: 'Bulletin 1' }).click();
  await intoNewTray(page, 'Reading');
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(1);
  await expect(
    page.getByText(/^Put 2 messages into the tray Reading, and from now on what comes from news@bulletin\.test\./),
  ).toBeVisible();
  // One Undo, and again.
  await undoButton(page).click();
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(3);
  await rows(page).filter({ hasText: 'Bulletin 1' }).click();
  await intoNewTray(page, 'Reading');
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(1);

  // What comes waits, too, and is no unread mail of the Inbox.
  await comes(page, [bulletin('3'), { id: 'b', subject: 'Berth 5' }]);
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(2);
  await page.getByRole('link', { name: /^Reading/ }).click();
  await expect(page.getByRole('heading', { name: 'Reading', level: 1 })).toBeVisible();
  await expect(rows(page)).toHaveCount(3);
  await rows(page).filter({ hasText: 'Bulletin 3' }).click();
  await expect(page.getByRole('article', { name: 'Message' })).toContainText('Text of 3');
  await expect(page.getByText(/^Delivered Monday at 07:00, next /)).toBeVisible();
  // Found by search wherever it waits.
  await goTo(page, '/find/subject%20%22bulletin%203%22');
  await expect(rows(page)).toHaveCount(1);

  await moveClock(page, nextMonday(Date.now()) - Date.now() + 2 * hour);
  await page.goto('/inbox');
  await expect(rows(page).first()).toContainText(/Reading.*3 read from 1 sender: News/s);
  await expect(trayRow(page, 'Reading')).toHaveCount(1);
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(5);

  // Opened in place, by keys; looked into; archived as a whole, and taken back.
  await page.keyboard.press('Home');
  const panel = page.getByRole('article', { name: 'Tray' });
  await expect(panel).toContainText('0 new of 3 messages, delivered Monday at 07:00');
  await panel.getByRole('button', { name: /Bulletin 2/ }).click();
  await expect(panel).toContainText('Text of 2');
  await page.keyboard.press('a');
  await expect(trayRow(page, 'Reading')).toHaveCount(0);
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(3);
  await expect(page.getByRole('article', { name: 'Message' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(trayRow(page, 'Reading')).toHaveCount(1);
  await trayRow(page, 'Reading').getByRole('checkbox').click();
  await expect(page.getByRole('status').filter({ hasText: '3 ticked' })).toBeVisible();
  await page.keyboard.press('u');
  await expect(trayRow(page, 'Reading')).toContainText('3 new from 1 sender: News');
  await page.keyboard.press('Shift+D');
  await page.getByRole('button', { name: /^Next week/ }).click();
  await expect(trayRow(page, 'Reading')).toHaveCount(0);
});

test('a round that is changed while mail waits; the dry run says what would have come when; dissolved, all comes', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a', subject: 'Berth 4' }]);
  await goTo(page, '/trays');
  await page.getByRole('link', { name: 'New tray' }).first().click();
  await page.getByLabel('Name', { exact: true }).fill('Reading');
  await page.getByLabel('Text in From').fill('bulletin.test');
  await page.getByRole('button', { name: 'Save the tray' }).click();
  await comes(page, [bulletin('1'), bulletin('2')]);
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(1);
  await goTo(page, '/trays');
  const item = page.getByRole('list', { name: 'Trays in their order' }).getByRole('listitem').first();
  await expect(item).toContainText(/Delivered Monday at 07:00; next .*2 wait/s);
  await item.getByRole('link', { name: 'Reading', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Dry run' })).toContainText(/2 would have\s+waited in this tray/);
  await page.getByLabel(/^As mail comes/).check();
  await expect(page.getByText('The 2 that wait now go by the new round.')).toBeVisible();
  await page.getByRole('button', { name: 'Save the tray' }).click();
  await goTo(page, '/inbox');
  await expect(trayRow(page, 'Reading')).toContainText('2 new');
  await undoButton(page).click();
  // What was delivered stays; the round is the old one again.
  await goTo(page, '/trays');
  await expect(item).toContainText('Delivered Monday at 07:00');
  await comes(page, [bulletin('3')]);
  await goTo(page, '/trays');
  await expect(item).toContainText('1 waits');
  await item.getByRole('button', { name: 'Dissolve “Reading”' }).click();
  await page.getByRole('button', { name: 'Dissolve it' }).click();
  await expect(page.getByText(/^Much of what comes is good to read/)).toBeVisible();
  await goTo(page, '/inbox');
  await expect(rows(page)).toHaveCount(4);
});

test('hold for an hour with one domain let through; lifted, nothing is left of it but the Logbook’s entry', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a', subject: 'Berth 4' }]);
  await goTo(page, '/delivery');
  await page.getByRole('button', { name: 'Let through by a condition' }).click();
  await page.getByLabel('How it compares').first().selectOption('domain');
  await page.getByLabel('Text in From').fill('harbour.test');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Changed when mail is delivered.')).toBeVisible();
  await page.getByRole('button', { name: 'An hour', exact: true }).click();
  await goTo(page, '/inbox');
  const strip = page.getByRole('status', { name: 'Hold', exact: true });
  await expect(strip).toContainText(/Held since \d\d:\d\d, until .*Nothing waits\./);
  await comes(
    page,
    [
      { id: 'b', subject: 'Berth 5' },
      { id: 'c', from: 'Elspeth <e@harbour.test>', subject: 'Berth 6' },
    ],
    2_000,
  );
  await expect(strip).toContainText('1 message waits.');
  await expect(rows(page)).toHaveCount(2);
  await expect(rows(page).filter({ hasText: 'Berth 6' })).toBeVisible();
  await strip.getByRole('link', { name: 'Look at what waits' }).click();
  await expect(rows(page)).toHaveCount(1);
  await rows(page).first().click();
  await page.keyboard.press('w');
  await expect(page.getByRole('listitem').filter({ hasText: 'Held, because a hold is on.' })).toBeVisible();
  await strip.getByRole('button', { name: 'Lift the hold' }).click();
  await expect(strip).toHaveCount(0);
  await goTo(page, '/inbox');
  await expect(rows(page)).toHaveCount(3);
  await expect(placeLink(page, 'Held')).toHaveCount(0);
  await expect(page.getByText('back', { exact: true })).toHaveCount(0);
  await goTo(page, '/logbook');
  await expect(page.getByRole('table').getByText('Lifted the hold: delivered 1 message')).toHaveCount(1);
});

test('a timetable painted by keys alone: what comes outside its hours waits, and comes when they begin', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a', subject: 'Berth 4' }]);
  await goTo(page, '/delivery');
  await page.getByLabel('Deliver by the timetable').focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('With neither hours nor fixed times nothing would ever be delivered.')).toBeVisible();
  const grid = page.getByRole('grid', { name: 'Hours in which mail comes' });
  // The whole week from now on is closed, but for an hour tomorrow.
  const then = new Date(Date.now() + day);
  const names = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];
  const name = names[then.getDay()];
  await page.keyboard.press('Tab');
  await expect(grid.getByRole('gridcell', { name: 'Monday 09:00 to 09:30' })).toBeFocused();
  for (let n = (then.getDay() + 6) % 7; n > 0; n--) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(grid.getByRole('gridcell', { name: `${name} 09:30 to 10:00: mail comes` })).toBeFocused();
  await expect(page.getByRole('list', { name: 'The timetable in words' })).toContainText(`${name}: 09:00 to 10:00`);
  await page.getByRole('button', { name: 'Save', exact: true }).press('Enter');
  await expect(page.getByText('Changed when mail is delivered.')).toBeVisible();
  await comes(page, [{ id: 'b', subject: 'Berth 5' }], 2_000);
  const strip = page.getByRole('status', { name: 'Hold', exact: true });
  await expect(strip).toContainText(/Outside the hours of the timetable, until tomorrow 09:00\. 1 message waits\./);
  await expect(rows(page)).toHaveCount(1);
  // Closed over the moment, and opened again in two tabs: it has come, once.
  const opens = new Date(then);
  opens.setHours(9, 30, 0, 0);
  await moveClock(page, opens.getTime() - Date.now());
  await page.goto('/inbox');
  const second = await page.context().newPage();
  await second.goto('/inbox');
  for (const one of [page, second]) await expect(rows(one)).toHaveCount(2);
  await expect(rows(page).first()).toContainText(/09:00.*Berth 5/s);
  await goTo(page, '/logbook?who=all');
  await expect(page.getByText('Delivered 1 message')).toHaveCount(1);
});

test('painted by mouse, copied to other days; hours by their beginning and end', async ({ page }) => {
  await openWith(page, [{ id: 'a', subject: 'Berth 4' }]);
  await goTo(page, '/delivery');
  const grid = page.getByRole('grid', { name: 'Hours in which mail comes' });
  const cell = (name: string) => grid.getByRole('gridcell', { name });
  await cell('Monday 09:00 to 09:30').scrollIntoViewIfNeeded();
  await cell('Monday 09:00 to 09:30').hover();
  await page.mouse.down();
  await cell('Tuesday 11:30 to 12:00').hover();
  await page.mouse.up();
  const words = page.getByRole('list', { name: 'The timetable in words' });
  await expect(words).toContainText('Monday and Tuesday: 09:00 to 12:00');
  await page.getByLabel('Copy Monday to').selectOption({ label: 'Monday to Friday' });
  await expect(words).toContainText('Monday to Friday: 09:00 to 12:00');
  const hours = page.getByRole('group', { name: 'Hours by their beginning and end' });
  await hours.getByLabel('Days of the hours').selectOption({ label: 'Wednesday' });
  await hours.getByLabel('Hours from').selectOption('10:00');
  await hours.getByLabel('Hours to').selectOption('11:00');
  await hours.getByRole('button', { name: 'Mail waits' }).click();
  await expect(words).toContainText('Wednesday: 09:00 to 10:00 and 11:00 to 12:00');
  await page.getByLabel('Time of delivery').fill('16:00');
  await page.getByLabel('On which days').selectOption({ label: 'every day' });
  await page.getByRole('button', { name: 'Fixed time' }).click();
  await expect(words).toContainText('Saturday and Sunday: at 16:00');
  await page.getByLabel('Quiet from').fill('tomorrow 13:00');
  await page.getByLabel('Quiet until').fill('tomorrow 12:00');
  await expect(page.getByText('It must end after it begins.')).toBeVisible();
  await page.getByLabel('Quiet until').fill('tomorrow 15:00');
  await page.getByRole('button', { name: 'Quiet', exact: true }).click();
  await page.getByLabel('Time zone').fill('Nowhere');
  await expect(page.getByText('A name like Europe/Copenhagen')).toBeVisible();
  await page.getByLabel('Time zone').fill('Asia/Kathmandu');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Changed when mail is delivered.')).toBeVisible();
  await page.reload();
  await expect(words).toContainText('Wednesday: 09:00 to 10:00 and 11:00 to 12:00, and at 16:00');
  await expect(page.getByLabel('Time zone')).toHaveValue('Asia/Kathmandu');
  await undoButton(page).click();
  await expect(words).toContainText('every day: nothing');
});

test('an automatic answer goes once to a person, never to a list, and stands in Sent', async ({ browser }) => {
  const { baseURL, close } = await ownServer(500);
  const page = await browser.newPage({ baseURL });
  const sent: string[] = [];
  let arriving: string[] = [];
  await page.context().route('**/api/post/submit*', async (route) => {
    sent.push(route.request().postData() ?? '');
    await route.continue();
  });
  await page.context().route('**/api/post/changes*', async (route) => {
    const response = await route.fetch();
    const body = (await response.json()) as { arrived: object[]; more: boolean };
    const own = body.more ? [] : arriving;
    if (!body.more) arriving = [];
    body.arrived.push(
      ...own.map((raw, n) => ({
        there: `own.${Date.now()}.${n}`,
        raw: Buffer.from(raw).toString('base64'),
        place: 'inbox',
        seen: false,
        flagged: false,
      })),
    );
    await route.fulfill({ response, json: body });
  });
  await openDemoAnew(page, 500);
  await goTo(page, '/delivery');
  await page.getByLabel('Answer what a hold keeps').check();
  await page.getByLabel('Text; without one this account does not answer').first().fill('I read mail again on Monday.');
  await expect(page.getByRole('region', { name: 'Who would have been answered' })).toContainText(
    /Had a hold been on for the last 7 days, of \d+ messages/,
  );
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Changed when mail is delivered.')).toBeVisible();
  const address = await page.locator('fieldset .font-mono').first().innerText();
  await page.getByRole('button', { name: 'Until lifted' }).click();
  const raw = (id: string, extra = '') =>
    `From: Elspeth Marwick <e.marwick@stonness-harbour.example>\r\nTo: ${address}\r\nSubject: Berth ${id}\r\nMessage-ID: <${id}@far.test>\r\n${extra}\r\nHello\r\n`;
  const check = async () => page.getByRole('button', { name: 'Check now' }).click();
  arriving = [raw('list', 'List-Id: <news.far.test>\r\n')];
  await check();
  await expect.poll(() => arriving.length).toBe(0);
  arriving = [raw('one')];
  await check();
  await expect.poll(() => sent.length).toBe(1);
  const [text] = sent;
  expect(text).toContain('Auto-Submitted: auto-replied');
  expect(text).toContain('In-Reply-To: <one@far.test>');
  expect(text).toContain('I read mail again on Monday.');
  arriving = [raw('two')];
  await check();
  await expect.poll(() => arriving.length).toBe(0);
  await expect(page.getByRole('link', { name: /^Hold/ })).toContainText('3 held');
  await page.reload();
  arriving = [raw('three')];
  await check();
  await expect(page.getByRole('link', { name: /^Hold/ })).toContainText('4 held');
  expect(sent).toHaveLength(1);
  await goTo(page, '/sent');
  await expect(rows(page).filter({ hasText: 'Auto: Berth one' })).toHaveCount(1);
  await goTo(page, '/logbook?who=all');
  await expect(
    page.getByText('Answered e.marwick@stonness-harbour.example automatically: “Auto: Berth one”'),
  ).toHaveCount(1);
  await page.close();
  await close();
});

test('by drag onto a tray on the left, and from Senders: what comes of a sender, with what is in the Inbox', async ({
  page,
}) => {
  await openWith(page, [bulletin('1'), bulletin('2'), { id: 'a', subject: 'Berth 4' }]);
  await goTo(page, '/trays/new');
  await page.getByLabel('Name', { exact: true }).fill('Reading');
  await page.getByRole('button', { name: 'Take this condition off' }).click();
  await page.getByRole('button', { name: 'Save the tray' }).click();
  await expect(page.getByText('Made the tray “Reading”.')).toBeVisible();
  await goTo(page, '/inbox');
  const link = page.locator('nav').getByRole('link', { name: 'Reading' });
  await dragRow(page, rows(page).filter({ hasText: 'Berth 4' }), link);
  await expect(rows(page)).toHaveCount(2);
  await expect(link).toContainText('1 wait');
  await goTo(page, '/senders?sender=news%40bulletin.test');
  await page.getByRole('button', { name: 'Put in a tray …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Put 2 messages in a tray' });
  await dialog.getByLabel(/^news@bulletin\.test/).check();
  await dialog.getByRole('button', { name: 'Put in tray' }).click();
  await expect(link).toContainText('3 wait');
  await comes(page, [bulletin('3')]);
  await expect(link).toContainText('4 wait');
  await expect(page.getByText('The Inbox is clear')).toBeVisible();
});

test('whoever leaves while something is saved stays where they went', async ({ page }) => {
  await openWith(page, [{ id: 'a', subject: 'Berth 4' }]);
  // A few milliseconds decide: the tray is saved before the page that was chosen is on the screen.
  for (const ms of [0, 4, 8, 12]) {
    await goTo(page, `/trays/new?of=${ms}`);
    await page.getByLabel('Name', { exact: true }).fill(`Reading ${ms}`);
    await page.getByLabel('Text in From').fill(`bulletin${ms}.test`);
    const save = page.getByRole('button', { name: 'Save the tray' });
    await expect(save).toBeEnabled();
    await save.evaluate((button: HTMLButtonElement, later) => {
      button.click();
      setTimeout(() => {
        history.pushState({ idx: history.length, key: String(later) }, '', '/inbox');
        dispatchEvent(new PopStateEvent('popstate', { state: history.state as unknown }));
      }, later);
    }, ms);
    await expect(page.getByText(`Made the tray “Reading ${ms}”`).first()).toBeVisible();
    expect(new URL(page.url()).pathname).toBe('/inbox');
  }
});
