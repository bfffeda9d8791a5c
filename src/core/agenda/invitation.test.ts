// Invitations: the examples of RFC 5546, section 4 (from memory), and what a hostile one could want.
import { newItem, type Item } from './item';
import { answerWords, meaningOf, withAnswer, type Circumstances, type Meaning } from './invitation';
import { cancelOf, replyOf, requestOf, timesWords } from './inviting';
import { readCalendar } from './readCalendar';

const now = Date.UTC(1997, 6, 1);
const calendar = (method: string, ...lines: string[]) =>
  [
    'BEGIN:VCALENDAR',
    'PRODID:-//Example/ExampleCalendarClient//EN',
    `METHOD:${method}`,
    'VERSION:2.0',
    'BEGIN:VEVENT',
    ...lines,
    'END:VEVENT',
    'END:VCALENDAR',
    '',
  ].join('\r\n');
const uid = 'UID:calsrv.example.com-873970198738777@example.com';
const request = (...lines: string[]) =>
  calendar(
    'REQUEST',
    'ORGANIZER:mailto:a@example.com',
    'ATTENDEE;ROLE=CHAIR;PARTSTAT=ACCEPTED;CN=A:mailto:a@example.com',
    'ATTENDEE;RSVP=TRUE;CUTYPE=INDIVIDUAL;CN=B:mailto:b@example.com',
    'ATTENDEE;RSVP=TRUE;CUTYPE=INDIVIDUAL;CN=C:mailto:c@example.com',
    uid,
    ...lines,
  );
const first = request(
  'DTSTAMP:19970611T190000Z',
  'DTSTART:19970701T200000Z',
  'DTEND:19970701T210000Z',
  'SUMMARY:Conference',
  'SEQUENCE:0',
  'STATUS:CONFIRMED',
);

const as = (own: string, here: Item | null = null, sender = 'a@example.com'): Circumstances => ({
  here,
  own: (address) => address.toLowerCase() === own,
  sender,
  messageId: 'm1@example.com',
  account: { name: 'B', address: own },
  now,
});
const mean = (text: string, given: Circumstances): Meaning => meaningOf(readCalendar(text, now), given);
function next(meaning: Meaning): Item {
  if (!('next' in meaning)) throw new Error(JSON.stringify(meaning));
  return meaning.next;
}
const says = (meaning: Meaning): string => (meaning.is === 'wrong' ? meaning.says : meaning.is);

test('section 4.2.1: a group is invited; 4.2.2: one of them answers', () => {
  const invitation = mean(first, as('b@example.com'));
  expect(invitation).toMatchObject({ is: 'invitation', changed: false, me: { name: 'B', address: 'b@example.com' } });
  const mine = next(invitation);
  expect(mine.messages).toEqual(['m1@example.com']);
  expect(mine.invited.map(({ address, answer }) => [address, answer])).toEqual([
    ['a@example.com', 'accepted'],
    ['b@example.com', 'needs-action'],
    ['c@example.com', 'needs-action'],
  ]);
  const reply = replyOf(mine, { name: 'B', address: 'b@example.com' }, 'accepted', now);
  expect(reply.calendar).toContain('METHOD:REPLY');
  expect(reply.subject).toBe('Accepted: Conference');
  const theirs = next(mean(first, as('d@example.com')));
  const answer = mean(reply.calendar, as('a@example.com', { ...theirs, messages: [] }, 'B@Example.com'));
  expect(answer).toMatchObject({ is: 'answer', from: 'B', already: false });
  expect(answerWords(next(answer).invited)).toBe('2 accepted, 1 has not answered');
  // The same again, or an older one that comes late, changes nothing.
  expect(mean(reply.calendar, as('a@example.com', next(answer), 'b@example.com'))).toMatchObject({ already: true });
  const late = replyOf(mine, { name: 'B', address: 'b@example.com' }, 'declined', now - 60_000);
  expect(mean(late.calendar, as('a@example.com', next(answer), 'b@example.com')).is).toBe('old');
});

test('section 4.2.4: changed, the hour is asked anew; what is older than what is here is not taken', () => {
  const me = { name: 'B', address: 'b@example.com' };
  const here = withAnswer(next(mean(first, as('b@example.com'))), me, 'accepted', now);
  const later = request(
    'DTSTAMP:19970613T190000Z',
    'DTSTART:19970701T180000Z',
    'DTEND:19970701T190000Z',
    'SEQUENCE:1',
    'SUMMARY:Conference',
  );
  const changed = mean(later, as('b@example.com', here));
  expect(changed).toMatchObject({ is: 'invitation', changed: true, answered: 'needs-action' });
  expect(next(changed)).toMatchObject({ sequence: 1, start: { at: '1997-07-01T18:00:00' } });
  expect(mean(first, as('b@example.com', next(changed))).is).toBe('old');
  // The same version again keeps what was answered.
  expect(mean(first, as('b@example.com', here))).toMatchObject({ changed: false, answered: 'accepted' });
});

test('section 4.2.10: called off; 4.4.1 and 4.4.3: one of a series moved, one called off', () => {
  const here = next(mean(first, as('b@example.com')));
  const off = calendar(
    'CANCEL',
    'ORGANIZER:mailto:a@example.com',
    'ATTENDEE:mailto:b@example.com',
    uid,
    'SEQUENCE:1',
    'STATUS:CANCELLED',
    'DTSTAMP:19970613T190000Z',
    'DTSTART:19970701T200000Z',
  );
  expect(next(mean(off, as('b@example.com', here)))).toMatchObject({ status: 'cancelled', sequence: 1 });

  const series = next(
    mean(
      request(
        'DTSTAMP:19970526T083000Z',
        'DTSTART:19970601T210000Z',
        'DTEND:19970601T220000Z',
        'RRULE:FREQ=MONTHLY;BYMONTHDAY=1;UNTIL=19980901T210000Z',
        'SEQUENCE:0',
        'SUMMARY:Review',
      ),
      as('b@example.com'),
    ),
  );
  const moved = request(
    'DTSTAMP:19970526T083000Z',
    'RECURRENCE-ID:19970701T210000Z',
    'DTSTART:19970703T210000Z',
    'DTEND:19970703T220000Z',
    'SEQUENCE:1',
    'SUMMARY:Review',
  );
  const after = next(mean(moved, as('b@example.com', series)));
  expect(after.changed).toMatchObject([
    { on: '1997-07-01T21:00:00', start: { at: '1997-07-03T21:00:00' }, cancelled: false },
  ]);
  const one = calendar(
    'CANCEL',
    'ORGANIZER:mailto:a@example.com',
    'ATTENDEE:mailto:b@example.com',
    uid,
    'RECURRENCE-ID:19970801T210000Z',
    'SEQUENCE:2',
    'STATUS:CANCELLED',
    'DTSTAMP:19970721T103000Z',
    'DTSTART:19970801T210000Z',
  );
  expect(mean(one, as('b@example.com', after))).toMatchObject({ is: 'cancelled', on: '1997-08-01T21:00:00' });
  expect(next(mean(one, as('b@example.com', after))).changed).toHaveLength(2);
});

test('what is sent is understood by whoever gets it', () => {
  const item: Item = {
    ...newItem('ours@y.example', 'appointment', now),
    title: 'Berths',
    start: { at: '1997-07-10T09:00:00', zone: 'Europe/Berlin' },
    end: { at: '1997-07-10T10:00:00', zone: 'Europe/Berlin' },
    organizer: { name: 'Me', address: 'me@y.example' },
    invited: [{ name: 'B', address: 'b@example.com', answer: 'needs-action', at: 0 }],
  };
  const sent = requestOf(item, false);
  expect(sent.text).toContain('Thu 10 Jul 1997, 09:00 to 10:00 (Europe/Berlin)');
  const theirs = next(mean(sent.calendar, as('b@example.com', null, 'me@y.example')));
  expect(theirs).toMatchObject({ title: 'Berths', start: item.start, end: item.end });
  const off = cancelOf({ ...item, sequence: 1 });
  expect(mean(off.calendar, as('b@example.com', theirs, 'me@y.example'))).toMatchObject({
    is: 'cancelled',
    next: { status: 'cancelled' },
  });
  const one = {
    on: '1997-07-10T09:00:00',
    title: 'Berths',
    place: '',
    note: '',
    start: { at: '1997-07-11T09:00:00', zone: 'Europe/Berlin' },
    end: null,
    cancelled: false,
    sequence: 1,
  };
  const series = { ...theirs, repeats: 'FREQ=DAILY;COUNT=3' };
  expect(next(mean(requestOf(item, true, one).calendar, as('b@example.com', series))).changed).toMatchObject([
    { on: one.on, start: one.start },
  ]);
});

describe('nobody speaks for another', () => {
  const here = next(mean(first, as('b@example.com')));
  const from = (method: string, organizer: string) =>
    calendar(
      method,
      `ORGANIZER:mailto:${organizer}`,
      uid,
      'SEQUENCE:9',
      'DTSTART:19970701T200000Z',
      'DTSTAMP:19970801T000000Z',
    );
  test.each([
    ['changed by another', from('REQUEST', 'evil@x.example'), here, /can’t change it/],
    ['called off by another', from('CANCEL', 'evil@x.example'), here, /can’t call it off/],
    ['called off, though it is not here', from('CANCEL', 'a@example.com'), null, /not in your Agenda/],
    ['called off, though it is one’s own', from('CANCEL', 'evil@x.example'), { ...here, organizer: null }, /your own/],
    ['one’s own invitation', from('REQUEST', 'b@example.com'), null, /of your own/],
    ['an answer to nothing', from('REPLY', 'a@example.com'), here, /not of one person/],
    ['another time', from('COUNTER', 'a@example.com'), here, /another time/],
    ['nothing in it', 'BEGIN:VCALENDAR\r\nMETHOD:REQUEST\r\nEND:VCALENDAR', null, /No task and no appointment/],
  ])('%s', (_, text, item, wrong) => {
    expect(says(mean(text, as('b@example.com', item)))).toMatch(wrong);
  });
  test('an answer in the name of another, and of one who was not invited', () => {
    const reply = replyOf(here, { name: '', address: 'c@example.com' }, 'declined', now);
    expect(says(mean(reply.calendar, as('a@example.com', here, 'evil@x.example')))).toMatch(/evil@x.example sent it/);
    const stranger = replyOf(here, { name: '', address: 'evil@x.example' }, 'accepted', now);
    expect(says(mean(stranger.calendar, as('a@example.com', here, 'evil@x.example')))).toMatch(/was not invited/);
  });
  test('several things at once are no invitation', () => {
    const two = first.replace(
      'END:VEVENT',
      'END:VEVENT\r\nBEGIN:VEVENT\r\nUID:other\r\nDTSTART:19970701T200000Z\r\nEND:VEVENT',
    );
    expect(says(mean(two, as('b@example.com')))).toMatch(/several things/);
  });
});

test('times in words: a day, days, over midnight', () => {
  expect(timesWords({ at: '2026-12-24', zone: null }, { at: '2026-12-25', zone: null })).toBe('Thu 24 Dec 2026');
  expect(timesWords({ at: '2026-12-24', zone: null }, { at: '2026-12-27', zone: null })).toBe(
    'Thu 24 Dec 2026 to Sat 26 Dec 2026',
  );
  expect(timesWords({ at: '2026-12-24T22:00:00', zone: null }, { at: '2026-12-25T01:00:00', zone: null })).toBe(
    'Thu 24 Dec 2026, 22:00 to Fri 25 Dec 2026, 01:00',
  );
});
