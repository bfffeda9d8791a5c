// Rules and flags through the real page.
import { expect, test, type Page } from './test';
import { list, drag } from './rulesPage';
import {
  counts,
  downloaded,
  goTo,
  mailFile,
  moveClock,
  openDemo,
  openRow,
  openWith,
  placeLink,
  rows,
  undoButton,
} from './desk';

const dryRun = (page: Page) => page.getByRole('region', { name: 'Dry run' });

test('a rule from a message in two presses, with the counts of what it proposes', async ({ page }) => {
  await openWith(page, [
    { id: 'a', from: 'News <news@paper.test>', subject: 'Monday' },
    { id: 'b', from: 'News <news@paper.test>', subject: 'Tuesday' },
    { id: 'c', from: 'Ann <ann@x.test>', subject: 'Monday' },
  ]);
  await rows(page).filter({ hasText: 'Tuesday' }).click();
  await page.getByRole('article').getByRole('link', { name: 'Sort mail like this' }).click();
  const proposed = page.getByRole('group', { name: 'From the message' });
  await expect(proposed.getByRole('button', { name: /From is of the domain “paper.test”/ })).toContainText('2 here');
  await expect(proposed.getByRole('button', { name: /To or Cc is “me@y.test”/ })).toContainText('3 here');
  await expect(page.getByRole('group', { name: 'Condition' })).toContainText('2 here');
  await page.getByRole('button', { name: 'Save the rule and sort 2 messages' }).click();
  await expect(list(page)).toHaveCount(1);
  await expect(list(page).first()).toContainText('When From is “news@paper.test”, then move it to Archive.');
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 1, unread: 1 });
  // One Undo takes back the rule and what it did.
  await undoButton(page).click();
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(3);
  await expect(list(page)).toHaveCount(0);
});

test('conditions of all kinds, a group and “unless”: the sentence, the counts, the trace', async ({ page }) => {
  await openWith(page, [
    {
      id: 'a',
      from: 'Ann <ann@x.test>',
      subject: 'Berth 4',
      text: 'The tide is\nhigh today',
      extra: 'X-Priority: 1\n',
    },
    { id: 'b', from: 'Ann <ann@x.test>', subject: 'Berth 5', text: 'The tide is low' },
    { id: 'c', from: 'Bob <bob@z.test>', subject: 'Other', text: 'Nothing', to: 'me@y.test, ann@x.test' },
  ]);
  await goTo(page, '/rules/new');
  await page.getByLabel('What it looks at').selectOption('Text');
  await page.getByLabel('Text in Text').fill('tide is high');
  await page.getByRole('button', { name: 'Group' }).click();
  const group = page.getByRole('group', { name: 'Group' });
  await group.getByLabel('What it looks at').selectOption('Header field');
  await group.getByLabel('Name of the header field').fill('x-priority');
  await group.getByLabel('How it compares').selectOption('is there');
  await group.getByRole('button', { name: 'Condition in this group' }).click();
  await group.getByLabel('What it looks at').nth(1).selectOption('Addressed');
  await group.getByLabel('How it is addressed').selectOption('to me among others');
  await page.getByRole('button', { name: 'Unless …' }).click();
  await page.getByLabel('Text in From').last().fill('nobody');
  await page.getByLabel('What else it does').selectOption('flag it');
  await page.getByLabel('For when').selectOption('for tomorrow');
  await page.getByLabel('What else it does').selectOption('ink its row in');
  await page.getByLabel('Which ink').selectOption('moss');
  await expect(
    page.getByText(
      'When Text contains “tide is high” and (Header field x-priority is there or Addressed to me among others), unless From contains “nobody”, then flag it for tomorrow, ink its row in moss.',
    ),
  ).toBeVisible();
  const held = page.getByRole('group', { name: 'Condition', exact: true });
  await expect(held.nth(0)).toContainText('1 here');
  await expect(held.nth(2)).toContainText('1 here');
  await expect(held.nth(3)).toContainText('0 here');
  await expect(dryRun(page)).toContainText('The conditions match 1 message here.');
  await page.getByRole('button', { name: 'Save the rule and sort 1 message' }).click();
  await expect(page.getByRole('button', { name: 'Save the rule and sort 1 message' })).toHaveCount(0);
  await goTo(page, '/inbox');
  const row = rows(page).filter({ hasText: 'Berth 4' });
  await expect(row.getByRole('img', { name: 'Ink moss' })).toHaveText('Mo');
  await expect(row.getByLabel('Flagged')).toBeVisible();
  await goTo(page, '/agenda');
  await expect(page.getByRole('region', { name: 'Tomorrow' })).toContainText('Berth 4');
});

test('a rule that is never reached is shown, and mended by dragging it up', async ({ page }) => {
  await openDemo(page);
  await goTo(page, '/rules');
  const gales = list(page).filter({ hasText: 'Gale warnings' });
  await expect(gales).toContainText('Never reached: all that it matches is taken before, by “Weather”');
  await expect(gales).toContainText(/taken before by “Weather”/);
  await expect(page.getByText('One rule is never reached.')).toBeVisible();
  // High enough for the whole list: how a list scrolls under what is dragged is the library's business.
  await page.setViewportSize({ width: 1280, height: 1500 });
  await drag(page, gales.getByRole('button', { name: 'Drag “Gale warnings”' }), list(page).first(), 'top');
  await expect(list(page).first()).toContainText('Gale warnings');
  await expect(page.getByText('One rule is never reached.')).toHaveCount(0);
  await expect(list(page).first()).not.toContainText('Never reached');
  // By keys the same: the arrows beside it.
  await page.getByRole('button', { name: 'Move “Gale warnings” down' }).click();
  await expect(page.getByText('One rule is never reached.')).toBeVisible();
});

test('while a rule is written it is said that it can’t match, is never reached, or takes all from another', async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, '/rules');
  await list(page).filter({ hasText: 'Gale warnings' }).getByRole('link').first().click();
  const odd = page.getByRole('status').filter({ hasText: /Never reached|exclude each other/ });
  await expect(odd).toContainText('Never reached: all that it matches is taken before, by “Weather”');
  await goTo(page, '/rules/new');
  await expect(page.getByRole('heading', { name: 'New rule' })).toBeVisible();
  await expect(odd).toHaveCount(0);
  await page.getByLabel('What it looks at').selectOption('Subject');
  await page.getByLabel('How it compares').selectOption('is');
  await page.getByLabel('Text in Subject').fill('tide');
  await page.getByRole('button', { name: 'Condition', exact: true }).click();
  await page.getByLabel('What it looks at').nth(1).selectOption('Subject');
  await page.getByLabel('How it compares').nth(1).selectOption('is');
  await page.getByLabel('Text in Subject').nth(1).fill('gale');
  await page.getByLabel('What else it does').selectOption({ index: 1 });
  await expect(odd).toContainText('Its conditions exclude each other: it can never match.');
});

test('“Sort mail like this” proposes what repeats in the subjects of a sender, not the whole of one', async ({
  page,
}) => {
  await openWith(
    page,
    ['hose', 'valve', 'pump'].map((part, n) => ({
      id: part,
      from: 'orders@parts.test',
      subject: `Your order ${85_166 + n * 7} is on its way: ${part}`,
    })),
  );
  await rows(page).first().click();
  await page.getByRole('article').getByRole('link', { name: 'Sort mail like this' }).click();
  const proposed = page.getByRole('group', { name: 'From the message' });
  await expect(proposed.getByRole('button', { name: /Subject contains “is on its way:”/ })).toContainText('3 here');
  await expect(proposed).not.toContainText('pump');
});

test('the whole set run over 2,500 messages as one, and undone as one', async ({ page }) => {
  await openDemo(page);
  await goTo(page, '/rules');
  const run = page.getByRole('button', { name: /^Run the rules over the mail here: \d+ messages/ });
  await expect(run).toBeVisible();
  const total = Number(/(\d+)/.exec(await run.innerText())?.[1]);
  expect(total).toBeGreaterThan(50);
  const label = placeLink(page, 'Inbox');
  await expect(label).toBeVisible();
  const charter = async () =>
    Number(/(\d+) in all/.exec(await page.getByRole('button', { name: /^Charter: / }).innerText())?.[1]);
  await page.getByRole('button', { name: /^Charter: / }).click();
  const before = await charter();
  await run.click();
  await expect(page.getByText(`Ran the rules over the mail here: ${total} messages changed.`)).toBeVisible();
  await expect.poll(charter).toBeGreaterThan(before);
  await expect(dryRun(page)).toContainText('The mail here stands as the rules would have it');
  await undoButton(page).click();
  await expect.poll(charter).toBe(before);
  await expect(run).toContainText(String(total));
});

test('after a third like move by hand a rule is offered, once, and can be refused for good', async ({ page }) => {
  const from = (who: string) =>
    [1, 2, 3, 4].map((n) => ({ id: `${who}${n}`, from: `${who} <${who}@x.test>`, subject: `${who} ${n}` }));
  await openWith(page, [...from('ann'), ...from('bob')]);
  const move = async (subject: string, name: string) => {
    await rows(page).filter({ hasText: subject }).click();
    await expect(openRow(page)).toContainText(subject);
    await page.keyboard.press('m');
    await page.getByLabel('Place, or the name of a new folder').fill(name);
    await page.keyboard.press('Enter');
    await expect(rows(page).filter({ hasText: subject })).toHaveCount(0);
  };
  const offer = page.getByRole('complementary', { name: 'An offer' });
  await move('ann 1', 'Papers');
  await move('ann 2', 'Papers');
  await expect(offer).toHaveCount(0);
  await move('ann 3', 'Papers');
  await expect(offer).toContainText('You moved 3 messages from ann@x.test to Papers by hand.');
  await offer.getByRole('button', { name: 'Not now' }).click();
  await move('ann 4', 'Papers');
  await move('bob 1', 'Papers');
  await move('bob 2', 'Papers');
  await expect(offer).toHaveCount(0);
  await move('bob 3', 'Papers');
  await offer.getByRole('link', { name: 'Sort mail like this' }).click();
  await expect(page.getByLabel('Where to')).toHaveValue(/^folder:/);
  await page.getByRole('button', { name: /^Save the rule/ }).click();
  await expect(list(page).first()).toContainText('When From is “bob@x.test”, then move it to Papers.');
});

test('flagged “fri 3pm”, late once the clock has moved on, then done', async ({ page }) => {
  await openWith(page, [
    { id: 'a', subject: 'Berth 4' },
    { id: 'b', subject: 'Berth 5' },
  ]);
  await rows(page).filter({ hasText: 'Berth 4' }).click();
  await page.keyboard.press('d');
  const dialog = page.getByRole('dialog', { name: 'Flag for' });
  await dialog.getByLabel(/^Type a date/).fill('someday');
  await expect(dialog).toContainText('“someday” is no date');
  await dialog.getByLabel(/^Type a date/).fill('fri 3pm');
  await expect(dialog).toContainText(/(today|tomorrow|Fri \d+ \w+) 15:00/);
  await dialog.getByRole('button', { name: 'Flag', exact: true }).click();
  await goTo(page, '/agenda');
  await expect(page.getByRole('main')).toContainText(/Berth 4.*15:00/s);
  await expect(page.getByRole('region', { name: 'Late' })).toHaveCount(0);
  await moveClock(page, 8 * 86_400_000);
  await page.reload();
  await expect(page.getByRole('region', { name: 'Late' })).toContainText(/late since Fri \d+ \w+ 15:00/);
  await goTo(page, '/inbox');
  await expect(rows(page).filter({ hasText: 'Berth 4' })).toContainText('late');
  await goTo(page, '/agenda');
  await page.getByRole('button', { name: 'Done: Berth 4' }).click();
  await expect(page.getByRole('region', { name: 'Done' })).toContainText('Berth 4');
  await undoButton(page).click();
  await expect(page.getByRole('region', { name: 'Late' })).toContainText('Berth 4');
});

test('the rules out as a Sieve script, edited outside, and back in; a fault is told with line and column', async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, '/rules/sieve');
  await expect(page.getByText('Sieve has no dates for flags')).toBeVisible();
  const { name, bytes } = await downloaded(page, () => page.getByRole('button', { name: 'Save the script' }).click());
  expect(name).toBe('wide-sort.sieve');
  const script = bytes.toString();
  const into = page.getByRole('region', { name: 'In', exact: true });
  // As it went out it comes back: nothing is lost of it.
  await into.locator('input[type=file]').setInputFiles(mailFile('rules.sieve', script));
  await expect(into).toContainText('9 rules would come');
  await expect(into.getByText('What can’t be taken')).toHaveCount(0);
  const edited = script
    .replace('"subject" "charter"', '"subject" "chartered"')
    .concat(
      'if header :contains "subject" "gale" {\n  fileinto "Storms/Gales";\n  stop;\n}\nif true { redirect "x@y.test"; }\n',
    );
  await into.getByLabel('A script to take up').fill(edited.replace('require', 'require ['));
  await expect(into.getByRole('alert')).toContainText(/Line \d+, column \d+: .* Nothing was taken\./);
  await into.getByLabel('A script to take up').fill(edited);
  await expect(into).toContainText('10 rules would come, with 2 new folders');
  await expect(into).toContainText(/Line \d+: A rule here passes no message on as it stands \(to x@y.test\)\./);
  await into.getByRole('button', { name: 'Take up these 10 rules' }).click();
  await expect(list(page)).toHaveCount(10);
  await expect(list(page).filter({ hasText: 'chartered' })).toHaveCount(1);
  await expect(list(page).last()).toContainText('then move it to Gales.');
  await expect(placeLink(page, 'Gales')).toBeVisible();
  await undoButton(page).click();
  await expect(list(page)).toHaveCount(9);
  await expect(placeLink(page, 'Gales')).toHaveCount(0);
});

test('a Sieve script of 10,000 lines, and a setup whose labels stand within themselves', async ({ page }) => {
  await openWith(page, [{ id: 'a' }]);
  await goTo(page, '/rules/sieve');
  const lines = Array.from({ length: 3_300 }, (_, n) => `if header :contains "subject" "word ${n}" {\n  stop;\n}`);
  const into = page.getByRole('region', { name: 'In', exact: true });
  await into.locator('input[type=file]').setInputFiles(mailFile('long.sieve', `${lines.join('\n')}\n# the end\n`));
  await expect(into).toContainText('3300 rules would come');
  await into.locator('input[type=file]').setInputFiles(mailFile('long.sieve', `${lines.join('\n')}\n# the end\nif {`));
  await expect(into.getByRole('alert')).toContainText('Line 9902, column 4');
  await goTo(page, '/mail');
  const circle = {
    format: 'wide-sort-setup',
    version: 2,
    register: [],
    rules: [],
    folders: [],
    labels: ['a', 'b'].map((id, i) => ({ id, name: id.toUpperCase(), ink: 'sea', parent: 'ba'[i] })),
  };
  await page.getByLabel('Take up a setup').setInputFiles(mailFile('circle.json', JSON.stringify(circle)));
  await expect(page.getByText(/labels\[0\]\.parent: “A” would stand within itself/)).toBeVisible();
});

test('a rule on age acts on the day on which a message comes of age', async ({ page }) => {
  await openWith(page, [{ id: 'a', subject: 'Old one', date: new Date(Date.now() - 86_400_000).toISOString() }]);
  await goTo(page, '/rules/new');
  await page.getByLabel('What it looks at').selectOption('Age');
  const days = page.getByLabel('Age in days');
  await page.getByLabel('What else it does').selectOption('move it to');
  await page.getByLabel('Where to').selectOption('Archive');
  await days.fill('-3');
  await expect(page.getByText('A whole number from 1 to 36,500.')).toBeVisible();
  await expect(page.getByText('Say a whole number for “Age”.')).toBeVisible();
  await days.fill('3');
  await page.getByRole('button', { name: 'Save the rule', exact: true }).click();
  await expect(list(page)).toHaveCount(1);
  await moveClock(page, 4 * 86_400_000);
  await page.goto('/inbox');
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(1);
  await goTo(page, '/logbook?who=all');
  await expect(page.getByText('Sorted 1 message that came of age for a rule')).toBeVisible();
});
