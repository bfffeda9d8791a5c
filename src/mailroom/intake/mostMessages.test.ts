// A mailbox that takes in no more: with another limit, for nobody waits for a million messages.
import type { MailFile } from './mailFile';
import type { Parse } from '../reading/parsePool';
import { readBatch } from '../reading/readMessages';
import { openMailbox } from '../testing/testing';
import { importFiles } from './importFiles';

jest.mock('../../core/mail/mailboxSize', () => ({ measuredMessages: 500, mostMessages: 1_000 }));

const parse: Parse = async (messages, form, judged) => ({ messages, ...(await readBatch(messages, form, judged)) });
const wrapped = (n: number) =>
  `From a${n}@b.test Thu Aug 22 12:36:23 2002\nFrom: a${n}@b.test\nSubject: Message ${n}\nMessage-ID: <${n}@b.test>\n\nText ${n}\n\n`;
const mboxOf = (count: number, first = 0): MailFile =>
  new File(
    Array.from({ length: count }, (_, i) => wrapped(first + i)),
    'a.mbox',
  );

test('files fill a mailbox up to where it ends; what came in stays, the reason is told, and what is here adds nothing', async () => {
  const mailbox = await openMailbox();
  const bringIn = (file: MailFile, job: string) =>
    importFiles(mailbox, job, [file], 'line', parse, 2, { cancelled: false }, () => undefined);
  expect(await bringIn(mboxOf(900), 'one')).toMatchObject({ added: 900, error: null });
  const over = await bringIn(mboxOf(700, 800), 'two');
  expect(over).toMatchObject({ added: 100, already: 100 });
  expect(over.error).toMatch(/^A mailbox takes in 1,000 messages at most/);
  expect(mailbox.columns.count).toBe(1_000);
  expect(await bringIn(mboxOf(1_000), 'three')).toMatchObject({ added: 0, already: 1_000, error: null });
  expect(await bringIn(mboxOf(1, 5_000), 'four')).toMatchObject({ added: 0, error: over.error });
  mailbox.close();
});
