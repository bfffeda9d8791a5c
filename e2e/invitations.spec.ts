// Invitations between two mailboxes of the stand-in: invited, changed, accepted, called off, with what is in the way said.
import { expect, test, type Page } from './test';
import { findRow, goTo, openDemo, openDemoAnew, rows } from './desk';
import { ownServer } from './ownServer';

/** Makes the demo’s accounts into one of somebody else. */
async function becomes(page: Page, address: string): Promise<void> {
  await goTo(page, '/accounts');
  await expect(page.getByRole('heading', { name: 'Accounts' })).toBeVisible();
  for (const old of ['operations@skerryline.example', 'mara.lindqvist@skerryline.example'])
    await page
      .getByRole('button', { name: new RegExp(`Take off.*${old}`) })
      .or(
        page
          .getByRole('listitem')
          .filter({ hasText: old })
          .getByRole('button', { name: /Take off/ }),
      )
      .first()
      .click();
  await page.getByRole('button', { name: 'Add an account' }).click();
  await page.getByLabel('Name, as others see it').fill('Harbour');
  await page.getByLabel('Address').fill(address);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(`Set the account ${address}.`)).toBeVisible();
  // Taking back what is about to go is tested elsewhere: here it goes at once.
  await goTo(page, '/desk');
  await page.getByLabel('After Send a message can be taken back for').selectOption('0');
}

const checkNow = (page: Page) => page.getByRole('button', { name: /Check now/ }).click();

test('the demo’s invitation is accepted, with what is in the way said', async ({ page }) => {
  await openDemo(page);
  await (await findRow(page, 'Winter timetable, last look')).click();
  const invitation = page.getByRole('region', { name: 'Invitation' });
  await expect(invitation).toContainText('You are invited');
  await expect(invitation).toContainText('In the way at that time: one thing');
  await expect(invitation).toContainText('Crew rota for the month');
  await invitation.getByRole('button', { name: 'Accept' }).click();
  await expect(invitation).toContainText('You accepted.');
  await expect(page.getByRole('status', { name: 'About to go' })).toContainText(
    'Accepted: Winter timetable, last look',
  );
  await goTo(page, '/agenda');
  await expect(page.getByRole('button', { name: 'Winter timetable, last look', exact: true })).toBeVisible();
});

test('invited, answered, changed, declined and called off between two mailboxes', async ({ browser }) => {
  test.slow();
  // A server of its own: what is sent comes to these two alone.
  const { baseURL, close } = await ownServer(60);
  const [one, other] = await Promise.all([browser.newContext({ baseURL }), browser.newContext({ baseURL })]);
  const [mara, harbour] = await Promise.all([one.newPage(), other.newPage()]);
  await Promise.all([openDemoAnew(mara, 60), openDemoAnew(harbour, 60)]);
  const address = 'pier@quay.example';
  await becomes(harbour, address);
  // Another address than the demo’s, which the other page has, too.
  await becomes(mara, 'desk@quay.example');

  await goTo(mara, '/agenda');
  await mara.getByRole('button', { name: 'New appointment' }).click();
  const panel = mara.getByRole('region', { name: 'New appointment' });
  await panel.getByLabel('Title').fill('Pilot ladder drill');
  await panel.getByLabel(/^Begins/).fill('in 5 days');
  await panel.getByRole('textbox', { name: 'Invite' }).fill(address);
  await expect(panel.getByText('One person is told by mail, which no Undo takes back.')).toBeVisible();
  await panel.getByRole('button', { name: 'Save and tell them' }).click();
  await expect(mara.getByText(/Sent to pier@.*“Invitation: Pilot ladder drill”/)).toBeVisible({ timeout: 40_000 });

  const open = async (subject: string) => {
    await expect
      .poll(async () => {
        await checkNow(harbour);
        return rows(harbour).filter({ hasText: subject }).count();
      })
      .toBeGreaterThan(0);
    await rows(harbour).filter({ hasText: subject }).first().click();
  };
  const maraSees = (words: string) =>
    expect
      .poll(async () => {
        await checkNow(mara);
        return mara.locator('main').innerText();
      })
      .toContain(words);
  await goTo(harbour, '/inbox');
  await open('Invitation: Pilot ladder drill');
  const invitation = harbour.getByRole('region', { name: 'Invitation' });
  await invitation.getByRole('button', { name: 'Accept' }).click();
  await expect(harbour.getByText(/Sent to .*“Accepted: Pilot ladder drill”/)).toBeVisible({ timeout: 40_000 });
  // The answer is counted by itself.
  await maraSees('1 accepted');

  await mara.getByRole('button', { name: 'Pilot ladder drill', exact: true }).click();
  await mara
    .getByRole('region', { name: 'Appointment' })
    .getByLabel(/^Begins/)
    .fill('in 6 days');
  await mara.getByRole('button', { name: 'Save and tell them' }).click();
  await expect(mara.getByText(/Sent to pier@.*“Changed: Pilot ladder drill”/)).toBeVisible({ timeout: 40_000 });
  await open('Changed: Pilot ladder drill');
  await expect(invitation).toContainText('This is otherwise now');
  await invitation.getByRole('button', { name: 'Decline' }).click();
  await expect(harbour.getByText(/Sent to .*“Declined: Pilot ladder drill”/)).toBeVisible({ timeout: 40_000 });
  await maraSees('1 declined');

  await mara.getByRole('button', { name: 'Pilot ladder drill', exact: true }).click();
  await mara.getByRole('region', { name: 'Appointment' }).getByRole('button', { name: 'Call it off' }).click();
  await expect(mara.getByText(/Sent to pier@.*“Called off: Pilot ladder drill”/)).toBeVisible({ timeout: 40_000 });
  await open('Called off: Pilot ladder drill');
  await expect(invitation).toContainText('This does not take place');
  await invitation.getByRole('button', { name: 'Take it so into the Agenda' }).click();
  await expect(invitation).toContainText('It stands in your Agenda so.');
  await Promise.all([one.close(), other.close()]);
  await close();
});
