// What stands in the demo's Agenda around today, and the invitations that came by mail: one of them at a time at which the
// person has something else already.
import { newItem, type Item } from '../src/core/agenda/item';
import { requestOf } from '../src/core/agenda/inviting';
import type { When } from '../src/core/agenda/wallTime';
import type { MessageToWrite } from '../src/core/mail/writing';
import { colleagues, partners, self } from './cast';
import { day, eveningOf, minute, zone, type Draft } from './draft';

const clock = 'Europe/Oslo';

/** The working day so many working days after that of an evening. */
function workday(evening: number, after: number): string {
  let at = evening - day / 2;
  for (let left = after; left > 0;) {
    at += day;
    const weekday = new Date(at + zone * minute).getUTCDay();
    if (weekday !== 0 && weekday !== 6) left--;
  }
  return new Date(at + zone * minute).toISOString().slice(0, 10);
}

const at = (date: string, time: string): When => ({ at: `${date}T${time}:00`, zone: clock });
const whole = (date: string): When => ({ at: date, zone: null });

/** The tasks and appointments of the person, around the day of `now`, milliseconds since 1970. */
export function demoAgenda(now: number): Item[] {
  const evening = eveningOf(now);
  const on = (after: number) => workday(evening, after);
  const before = (days: number) => new Date(evening - (days + 0.5) * day + zone * minute).toISOString().slice(0, 10);
  const item = (n: number, kind: Item['kind'], title: string, some: Partial<Item>): Item => ({
    ...newItem(`demo-${n}`, kind, now - 3 * day),
    title,
    ...some,
  });
  const appointment = (n: number, title: string, date: string, from: string, to: string, some: Partial<Item> = {}) =>
    item(n, 'appointment', title, { start: at(date, from), end: at(date, to), reminder: 10, ...some });
  const task = (n: number, title: string, due: When | null, some: Partial<Item> = {}) =>
    item(n, 'task', title, { end: due, ...some });
  return [
    appointment(1, 'Morning call with the harbours', on(0), '09:00', '09:20', {
      start: at(before(20), '09:00'),
      end: at(before(20), '09:20'),
      repeats: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR',
    }),
    appointment(2, 'Walk over the ramp at Vedra', on(0), '14:00', '15:00', { place: 'Vedra, berth 2' }),
    appointment(3, 'Crew rota for the month', on(1), '10:00', '11:30', {
      place: 'Meeting room, upper deck',
      organizer: self,
      invited: [
        { ...colleagues[1], answer: 'accepted', at: now - day },
        { ...colleagues[2], answer: 'needs-action', at: 0 },
        { ...colleagues[4], answer: 'declined', at: now - 2 * day },
      ],
    }),
    appointment(4, 'Inspectorate on board', on(3), '08:00', '12:00', { place: 'Vedra Star' }),
    item(5, 'appointment', 'Dry dock, Vedra Star', { start: whole(on(6)), end: whole(on(9)) }),
    task(6, 'Answer the inspectorate about the life rafts', whole(before(1)), { reminder: 0 }),
    task(7, 'Order the bow door seal', whole(on(0))),
    task(8, 'Winter timetable to the printer', at(on(1), '12:00'), { reminder: 60 }),
    task(9, 'Look over the rest hours of October', whole(on(4))),
    task(10, 'Figures for the council', whole(on(2)), { repeats: 'FREQ=MONTHLY' }),
    task(11, 'Thank the volunteers of the lifeboat', null),
    task(12, 'Renew the contract for shore power', whole(before(4)), { done: now - 2 * day }),
  ];
}

function invitation(n: number, by: { name: string; address: string }, date: number, item: Partial<Item>): Draft {
  const its: Item = {
    ...newItem(`demo-invitation-${n}@skerryline.example`, 'appointment', date),
    organizer: by,
    invited: [
      { ...self, answer: 'needs-action', at: 0 },
      { ...colleagues[2], answer: 'accepted', at: date },
    ],
    ...item,
  };
  const { subject, text, calendar } = requestOf(its, false);
  const encoder = new TextEncoder();
  const body: MessageToWrite['body'] = {
    type: 'multipart/alternative',
    boundary: `=_invitation_${n}`,
    parts: [
      {
        type: 'text/plain',
        charset: 'utf-8',
        bytes: encoder.encode(`Hello Mara,\r\n\r\n${text.replace(/\n/g, '\r\n')}\r\n${by.name}\r\n`),
        encoding: 'quoted-printable',
      },
      { type: 'text/calendar; method=REQUEST', charset: 'utf-8', bytes: encoder.encode(calendar), encoding: 'base64' },
    ],
  };
  return {
    message: { messageId: `invitation-${n}@skerryline.example`, from: by, to: [self], subject, body },
    date,
    kind: 'invitation',
  };
}

/** The invitations that came the day before; the first is at a time at which the crew rota is spoken about. */
export function demoInvitations(evening: number): Draft[] {
  return [
    invitation(1, colleagues[1], evening - 1.5 * day, {
      title: 'Winter timetable, last look',
      place: 'Ticket office',
      start: at(workday(evening, 1), '10:30'),
      end: at(workday(evening, 1), '11:15'),
    }),
    invitation(2, partners.harbour[1], evening - 1.3 * day, {
      title: 'Berth 4: walk over the new fenders',
      place: 'Stonness, berth 4',
      start: at(workday(evening, 2), '13:00'),
      end: at(workday(evening, 2), '14:00'),
    }),
  ];
}
