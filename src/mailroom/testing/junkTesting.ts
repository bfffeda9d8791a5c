// Help for the tests of the junk filter in the mailroom: wanted mail and junk, arriving and marked.
import { emptySetup } from '../../core/line/setup';
import type { JunkSettings } from '../../core/junk/settings';
import { act } from '../commands/acts';
import { changeSetup } from '../commands/changeSetup';
import { addMessages, type Incoming } from '../intake/incoming';
import type { Mailbox } from '../service/mailbox';
import { memoryStore } from '../storage/recordStore';
import { mailOf, openMailbox } from './testing';

export const wanted = [
  'The gangway rota for Friday',
  'Minutes of the harbour meeting',
  'Berth plan and tide table',
  'Crew swap on the evening boat',
  'Engine oil order confirmed',
  'Wind forecast for the crossing',
];
export const junk = [
  'Guaranteed prize money today',
  'Claim your prize before midnight',
  'Cheap pills without questions',
  'Your prize of one million',
  'Pills and money guaranteed',
  'Win a million prize money',
];

export const mail = (subject: string, from: string, n: number, place: Incoming['place'] = null): Incoming => ({
  ...mailOf(
    { From: from, To: 'desk@ferry.example', Subject: subject, 'Message-ID': `<${n}-${from}>` },
    `${subject}.\n${subject} again, says number ${n}.`,
  ),
  place,
});

/** Grows with each {@link next}: a number that no message had before. */
export let command = 0;
export const next = () => `command ${command++}`;

export async function filter(mailbox: Mailbox, part: Partial<JunkSettings>, runHere = false) {
  const item = { ...emptySetup.junk, shipped: false, ...part };
  return changeSetup(mailbox, next(), [{ list: 'junk', id: 'junk', item }], 'Drew the line', runHere);
}

/** A mailbox with six wanted and six junk messages in the Inbox, none of them marked. */
export async function begun(records = new Map<string, unknown>()): Promise<Mailbox> {
  const mailbox = await openMailbox(memoryStore(records));
  const list = [
    ...wanted.map((s, i) => mail(s, `a${i}@harbour.example`, i)),
    ...junk.map((s, i) => mail(s, `b${i}@junk.test`, i)),
  ];
  await mailbox.exclusive(() => addMessages(mailbox, list, { command: next(), by: 'post office', says: 'arrived' }));
  return mailbox;
}

export const good = [0, 1, 2, 3, 4, 5];
export const bad = [6, 7, 8, 9, 10, 11];
export const markAll = async (mailbox: Mailbox) => {
  await act(mailbox, next(), { ids: bad }, { do: 'move', place: 'junk' });
  await act(mailbox, next(), { ids: good }, { do: 'mark', junk: false });
};
export const placeOf = ({ columns, tables }: Mailbox, id: number) => tables.place(columns.place[id]);
export const arrive = (mailbox: Mailbox, ...list: Incoming[]) =>
  mailbox.exclusive(() => addMessages(mailbox, list, { command: next(), by: 'post office', says: 'arrived' }));
