import { exportMail } from '../questions/exporting';
import { importFiles } from './importFiles';
import type { MailFile } from './mailFile';
import type { Mailbox } from '../service/mailbox';
import type { Parse } from '../reading/parsePool';
import { logbook } from '../questions/logbook';
import { wholeLog } from '../border/log';
import { fileName } from '../../core/text/fileName';
import { rows } from '../questions/rows';
import { readBatch } from '../reading/readMessages';
import { memoryStore } from '../storage/recordStore';
import { openMailbox, single } from '../testing/testing';
import type { ImportProgress } from '../border/transfer';
import { undo } from '../commands/undo';

const parse: Parse = async (messages, form, judged) => ({ messages, ...(await readBatch(messages, form, judged)) });
const file = (name: string, text: string | Uint8Array<ArrayBuffer>): MailFile => new File([text], name);

async function bringIn(mailbox: Mailbox, files: MailFile[], options: { job?: string; stopAt?: number } = {}) {
  const told: ImportProgress[] = [];
  const control = { cancelled: false };
  const report = await importFiles(
    mailbox,
    options.job ?? `job${mailbox.seq}`,
    files,
    'line',
    parse,
    2,
    control,
    (progress) => {
      told.push(progress);
      if (options.stopAt !== undefined && progress.added >= options.stopAt) control.cancelled = true;
    },
  );
  return { report, told };
}

const message = (n: number, body = `Text ${n}\n`) =>
  `From: a${n}@b.test\nSubject: Message ${n}\nMessage-ID: <${n}@b.test>\n\n${body}`;
const wrapped = (n: number, body?: string) => `From a${n}@b.test Thu Aug 22 12:36:23 2002\n${message(n, body)}\n`;
const mboxOf = (count: number, first = 0) => Array.from({ length: count }, (_, i) => wrapped(first + i)).join('');

test('an mbox comes in, goes out byte for byte, and adds nothing the second time', async () => {
  const mailbox = await openMailbox();
  const text = mboxOf(1_300) + wrapped(5_000, '>From the harbour\n\n>>From us\n');
  const first = await bringIn(mailbox, [file('a.mbox', text)]);
  expect(first.report).toEqual({ added: 1_301, already: 0, damaged: 0, refused: [], cancelled: false, error: null });
  expect(first.told.at(-1)).toMatchObject({ added: 1_301, bytesDone: text.length, bytesTotal: text.length });
  const out = await exportMail(mailbox, { view: { kind: 'place', place: 'inbox' } }, 'mbox');
  expect(out.ok && (await out.blob.text()) === text).toBe(true);
  const second = await bringIn(mailbox, [file('a.mbox', text)]);
  expect(second.report).toMatchObject({ added: 0, already: 1_301 });
  expect((await logbook(mailbox, { ...wholeLog, who: 'you' }, 0, 9)).entries.map((e) => e.says)).toEqual([
    'Brought in 1,301 messages from a.mbox',
  ]);
});

test('a message that came alone goes out byte for byte, also with CRLF or a From_ line of its own', async () => {
  const mailbox = await openMailbox();
  const texts = [message(1), message(2).replace(/\n/g, '\r\n'), wrapped(3), `${message(4)}no line end`];
  await bringIn(
    mailbox,
    texts.map((t, i) => file(`${i}.eml`, t)),
  );
  for (const [id, text] of texts.entries()) {
    const out = await exportMail(mailbox, { ids: [id] }, 'eml');
    expect(out.ok && out.name).toBe(`Message ${id + 1}.eml`);
    expect(out.ok && (await out.blob.text())).toBe(text);
  }
});

test('what differs in line ends alone is the same message', async () => {
  const mailbox = await openMailbox();
  await bringIn(mailbox, [file('a.mbox', mboxOf(3))]);
  const crlf = [0, 1, 2].map((n) => file(`${n}.eml`, message(n).replace(/\n/g, '\r\n')));
  expect((await bringIn(mailbox, crlf)).report).toMatchObject({ added: 0, already: 3 });
  // A CR that ends no line is a byte like any other.
  expect((await bringIn(mailbox, [file('x.eml', message(1).replace('Text', 'Te\rxt'))])).report.added).toBe(1);
});

test('a .zip of .eml files, as it is saved, comes in again; archives that lie are told', async () => {
  const mailbox = await openMailbox();
  await bringIn(mailbox, [file('a.mbox', mboxOf(5)), file('b.eml', message(7))]);
  const out = await exportMail(mailbox, { view: { kind: 'place', place: 'inbox' } }, 'eml');
  const bytes = out.ok ? Buffer.from(await out.blob.arrayBuffer()) : Buffer.alloc(0);
  expect((await bringIn(mailbox, [new File([bytes], 'inbox.zip')])).report).toMatchObject({ added: 0, already: 6 });
  const other = await openMailbox();
  expect((await bringIn(other, [new File([bytes], 'inbox.zip')])).report).toMatchObject({ added: 6, refused: [] });
  const cut = await bringIn(other, [
    new File([bytes.subarray(0, bytes.length - 40)], 'cut.zip'),
    file('c.eml', message(9)),
  ]);
  expect(cut.report.refused).toEqual([
    { file: 'cut.zip', reason: expect.stringContaining('can’t be read to its end') },
  ]);
  expect(cut.report.added).toBe(1);
  const { BlobWriter, TextReader, ZipWriter } = await import('@zip.js/zip.js');
  const zip = new ZipWriter(new BlobWriter());
  await zip.add('mail/one.eml', new TextReader(message(11)));
  await zip.add('notes.txt', new TextReader('no mail at all'));
  await zip.add('__MACOSX/._one.eml', new TextReader('x'));
  await zip.add('bomb.eml', new TextReader(message(12) + 'x'.repeat(110_000_000)));
  const mixed = await bringIn(other, [new File([await zip.close()], 'mixed.zip')]);
  expect(mixed.report.added).toBe(1);
  expect(mixed.report.refused.map(({ file, reason }) => [file, reason.slice(0, 30)])).toEqual([
    ['mixed.zip: notes.txt', 'It is no mail: it begins neith'],
    ['mixed.zip', '“bomb.eml” would unpack to mor'],
  ]);
});

test('many .eml files leave as a ZIP of the bytes that came in', async () => {
  const mailbox = await openMailbox();
  await bringIn(mailbox, [file('a.eml', message(1)), file('b.eml', message(2))]);
  const out = await exportMail(mailbox, { ids: [0, 1] }, 'eml');
  const zip = out.ok ? Buffer.from(await out.blob.arrayBuffer()).toString('latin1') : '';
  expect(zip.startsWith('PK')).toBe(true);
  expect(zip).toContain('1 Message 1.eml');
  expect(zip).toContain(message(2));
});

test('a folder of 500 files is a handful of commands, and one entry', async () => {
  const mailbox = await openMailbox();
  const files = Array.from({ length: 500 }, (_, n) => file(`${n}.eml`, message(n)));
  const { report } = await bringIn(mailbox, files);
  expect(report.added).toBe(500);
  expect(mailbox.seq).toBeLessThanOrEqual(2);
  expect(await logbook(mailbox, { ...wholeLog, who: 'you' }, 0, 9)).toMatchObject({
    total: 1,
    entries: [{ says: 'Brought in 500 messages from 500 files', count: 500 }],
  });
});

test('what is no mail is refused with the reason, and the rest is taken', async () => {
  const mailbox = await openMailbox();
  const { report } = await bringIn(mailbox, [
    file('picture.mbox', Uint8Array.of(137, 80, 78, 71, 13, 10, 26, 10, 0, 0)),
    file('empty.mbox', ''),
    file('good.mbox', mboxOf(2)),
    {
      name: 'broken.mbox',
      size: 10,
      slice: () => ({ arrayBuffer: () => Promise.reject(new Error('the disk is gone')) }),
    },
  ]);
  expect(report.added).toBe(2);
  expect(report.refused).toEqual([
    { file: 'picture.mbox', reason: expect.stringMatching(/^It is no mail: /) },
    { file: 'empty.mbox', reason: 'It is empty.' },
    { file: 'broken.mbox', reason: 'It could not be read: the disk is gone.' },
  ]);
});

test('a damaged message is kept raw and listed with the reason', async () => {
  const mailbox = await openMailbox();
  const cut = 'From: a@b.test\nContent-Type: multipart/mixed; boundary=b\n\n--b\n\nhalf of it';
  const { report } = await bringIn(mailbox, [file('cut.eml', cut)]);
  expect(report).toMatchObject({ added: 1, damaged: 1 });
  const listed = await rows(mailbox, { kind: 'damaged' }, single, 0, 9);
  expect(listed.rows[0].damage).toMatch(/may have been cut/);
  const out = await exportMail(mailbox, { ids: [0] }, 'eml');
  expect(out.ok && (await out.blob.text())).toBe(cut);
});

test('a stop keeps what was added; the same file then adds the rest; undone as one', async () => {
  const mailbox = await openMailbox();
  // Long enough that the file is read in several pieces: it is between them that a stop is heard.
  const long = Array.from({ length: 3_000 }, (_, n) => wrapped(n, 'x'.repeat(1_000) + '\n')).join('');
  const { report } = await bringIn(mailbox, [file('a.mbox', long)], { stopAt: 512 });
  expect(report.cancelled).toBe(true);
  expect(report.added).toBeGreaterThanOrEqual(512);
  expect(report.added).toBeLessThan(3_000);
  const rest = await bringIn(mailbox, [file('a.mbox', long)], { job: 'rest' });
  expect(rest.report).toMatchObject({ added: 3_000 - report.added, already: report.added });
  const [entry] = (await logbook(mailbox, { ...wholeLog, who: 'you' }, 0, 1)).entries;
  await undo(mailbox, 'u', entry.seq);
  expect((await rows(mailbox, { kind: 'place', place: 'inbox' }, single, 0, 1)).total).toBe(report.added);
});

test('a disk that fills up stops the import in words; what was added is there', async () => {
  const inner = memoryStore();
  let writes = 0;
  const store = {
    ...inner,
    set: async (key: string, value: unknown) => {
      if (key.startsWith('journal/') && ++writes > 2) throw new DOMException('full', 'QuotaExceededError');
      await inner.set(key, value);
    },
  };
  const mailbox = await openMailbox(store);
  const { report } = await bringIn(mailbox, [file('a.mbox', mboxOf(2_000))]);
  expect(report).toMatchObject({ added: 1_024, error: expect.stringMatching(/is full/) });
  expect((await rows(await openMailbox(inner), { kind: 'place', place: 'inbox' }, single, 0, 1)).total).toBe(1_024);
});

test.each([
  ['../../etc/passwd', 'etc passwd'],
  ['a\u202Efdp.exe', 'a fdp.exe'],
  ['con|<>:"?*', 'con'],
  ['...', 'unnamed'],
  ['x'.repeat(300), 'x'.repeat(120)],
])('a file name that is safe: %s', (name, safe) => {
  expect(fileName(name)).toBe(safe);
});
