// Tasks, appointments and the Agenda as a person uses them: made of a message, due, done, dragged to another day, as a file.
import { expect, test } from './test';
import { downloaded, goTo, mailFile, moveClock, openWith, rows, undoButton, type Mail } from './desk';
import { violations } from './axe';

const mail: Mail[] = [
  {
    id: 'a@harbour.test',
    subject: 'Re: Survey of the ramp',
    from: 'Bo <bo@harbour.test>',
    date: new Date().toISOString(),
    text: 'Could we meet in 3 days at 14:30?\nThe report is due in a week.',
  },
];

test('a task of a message: its title, the days in the text, due, told late, done, and all of it undone', async ({
  page,
}) => {
  await openWith(page, mail);
  await rows(page).first().click();
  await expect(page.getByRole('heading', { name: 'Re: Survey of the ramp' })).toBeVisible();
  await page.keyboard.press('Shift+K');
  const panel = page.getByRole('region', { name: 'New task' });
  await expect(panel.getByLabel('Title')).toHaveValue('Survey of the ramp');
  await expect(panel.getByRole('group', { name: 'In the message' }).getByRole('button').first()).toContainText('14:30');
  await expect(panel.getByText('One message is kept with it.')).toBeVisible();
  await panel.getByLabel(/^Due/).fill('someday');
  await expect(panel.getByText(/“someday” is no date/)).toBeVisible();
  await expect(panel.getByRole('button', { name: 'Save' })).toBeDisabled();
  await panel.getByLabel(/^Due/).fill('tomorrow');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Task: Survey of the ramp' })).toBeVisible();

  await goTo(page, '/agenda');
  const tomorrow = page.getByRole('region', { name: 'Tomorrow' });
  await tomorrow.getByRole('button', { name: 'Survey of the ramp', exact: true }).click();
  const one = await downloaded(page, () => page.getByRole('button', { name: 'with its message' }).click());
  expect(one.bytes.toString().replace(/\r\n /g, '')).toMatch(
    /ATTACH:mid:a@harbour\.test\r\nATTACH;FMTTYPE=message\/rfc822;ENCODING=BASE64;VALUE=BINARY:/,
  );
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  expect(await violations(page)).toEqual([]);
  await tomorrow.getByRole('link', { name: 'The message of Survey of the ramp' }).click();
  await expect(page.getByRole('heading', { name: 'Re: Survey of the ramp' })).toBeVisible();

  await moveClock(page, 3 * 86_400_000);
  await page.goto('/agenda');
  const late = page.getByRole('region', { name: 'Late' });
  await expect(late).toContainText('Survey of the ramp');
  await late.getByRole('button', { name: 'Done: Survey of the ramp' }).click();
  await expect(page.getByRole('region', { name: 'Done' })).toContainText('Survey of the ramp');
  await undoButton(page).click();
  await expect(late).toContainText('Survey of the ramp');
});

test('an appointment is dragged to another day, and taken off; weeks and months as pictures', async ({ page }) => {
  await openWith(page, mail);
  await goTo(page, '/agenda');
  await page.getByRole('button', { name: 'New appointment' }).click();
  const panel = page.getByRole('region', { name: 'New appointment' });
  await panel.getByLabel('Title').fill('Dry dock');
  // In the middle of the month there is a day before and one after it in sight.
  const month = new Date().getMonth();
  const day = `${new Date().getFullYear() + 1}-${String(month + 1).padStart(2, '0')}-15`;
  await panel.getByLabel(/^Begins/).fill(day);
  await expect(panel.getByLabel('Lasts')).toHaveValue('1 day');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Made the appointment “Dry dock”.')).toBeVisible();
  await goTo(page, `/agenda?view=month&at=${Date.parse(`${day}T12:00`)}`);
  const event = page.locator('.fc-event', { hasText: 'Dry dock' });
  await expect(event).toBeVisible();
  expect(await violations(page)).toEqual([]);
  const target = page.locator(`.fc-daygrid-day[data-date="${day.slice(0, 8)}16"]`);
  await event.hover();
  await page.mouse.down();
  const to = await target.boundingBox();
  await page.mouse.move((to?.x ?? 0) + 20, (to?.y ?? 0) + 40, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByText('Changed the appointment “Dry dock”.')).toBeVisible();
  await expect(target.locator('.fc-event', { hasText: 'Dry dock' })).toBeVisible();
  await target.locator('.fc-event').click();
  await expect(page.getByRole('region', { name: 'Appointment' }).getByLabel(/^Begins/)).toHaveValue(
    `${day.slice(0, 8)}16`,
  );
  await page.getByRole('button', { name: 'Week', exact: true }).click();
  await page.getByRole('region', { name: 'Appointment' }).getByRole('button', { name: 'Take off' }).click();
  await expect(page.getByText('Took the appointment “Dry dock” off.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/Undid|Undone|back/i).first()).toBeVisible();

  // No hour of the week is left out of its picture that has something in it.
  await page.getByRole('button', { name: 'New appointment' }).click();
  await panel.getByLabel('Title').fill('Night watch');
  await panel.getByLabel(/^Begins/).fill(`${day} 22:30`);
  await panel.getByRole('button', { name: 'Save' }).click();
  await page.locator('.fc-event', { hasText: 'Night watch' }).scrollIntoViewIfNeeded();
  await expect(page.locator('.fc-event', { hasText: 'Night watch' })).toBeInViewport();
});

test('.ics out and in: looked at before it counts; damaged, without end, too often, and nothing at all said in words', async ({
  page,
}) => {
  await openWith(page, mail);
  await goTo(page, '/agenda');
  await page.getByRole('button', { name: 'New task' }).click();
  await page.getByLabel('Title').fill('Figures; for the council');
  await page.getByLabel(/^Due/).fill('in 2 days');
  await page.getByLabel('Comes again').selectOption('FREQ=WEEKLY');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Made the task “Figures; for the council”.')).toBeVisible();
  const { name, bytes } = await downloaded(page, () => page.getByRole('button', { name: 'Save .ics' }).click());
  expect(name).toBe('agenda.ics');
  expect(bytes.toString()).toContain('SUMMARY:Figures\\; for the council');
  const bring = (file: string, text: string) => page.getByTestId('calendar-file').setInputFiles(mailFile(file, text));
  await bring('agenda.ics', bytes.toString());
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('0 new, 0 otherwise than here, 1 here already');
  await dialog.getByRole('button', { name: 'Leave it' }).click();
  await bring(
    'odd.ics',
    `BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:x\nDTSTART;TZID=Nowhere/Land:20261201T090000\nRRULE:FREQ=SECONDLY\nSUMMARY:<img src=x onerror=alert(1)>\nEND:VEVENT\nBEGIN:VEVENT\nUID:y\nDTSTART:20269999\nEND:VEVENT\nBEGIN:VTODO\nUID:z\nSUMMARY:Cut`,
  );
  await expect(dialog).toContainText('Not taken, or not whole');
  for (const says of ['more often than a day', '“Nowhere/Land” is not known', 'is no day and no time', 'does not end'])
    await expect(dialog).toContainText(says);
  await dialog.getByRole('button', { name: 'Take 2 in' }).click();
  await expect(page.getByText('Took 2 tasks and appointments from odd.ics.')).toBeVisible();
  // Ten megabytes: the page answers meanwhile.
  const event = (n: number) =>
    `BEGIN:VEVENT\nUID:big-${n}\nDTSTART:20261201T090000Z\nRRULE:FREQ=DAILY\nSUMMARY:${'x'.repeat(900)}\nEND:VEVENT\n`;
  await bring(
    'big.ics',
    `BEGIN:VCALENDAR\n${Array.from({ length: 10_000 }, (_, n) => event(n)).join('')}END:VCALENDAR\n`,
  );
  await page.getByRole('checkbox', { name: 'Flags' }).click();
  await expect(page.getByRole('checkbox', { name: 'Flags' })).not.toBeChecked();
  await expect(dialog).toContainText('10000 appointments', { timeout: 120_000 });
  await dialog.getByRole('button', { name: 'Leave it' }).click();
  await bring('none.ics', 'hello');
  await expect(dialog).toContainText('No calendar is in it');
  await expect(dialog.getByRole('button', { name: 'Take 0 in' })).toBeDisabled();
});
