// Judging many: what it reads, and that it does nothing twice.
import { JunkModel } from '../../core/junk/model';
import { readModel, writeModel } from '../../core/junk/modelFile';
import { slots } from '../../core/junk/slots';
import { act } from '../commands/acts';
import { filterReport } from '../questions/junkReport';
import { rawPackSize } from '../storage/keys';
import { memoryStore } from '../storage/recordStore';
import { arrive, begun, filter, markAll, next } from '../testing/junkTesting';
import { mailOf, openHearing, openMailbox } from '../testing/testing';

test('what was judged is not judged again, also after a reload, until a mark teaches otherwise', async () => {
  const records = new Map<string, unknown>();
  const first = await begun(records);
  await markAll(first);
  await filterReport(first, () => undefined);
  await first.flush();
  first.close();
  const second = await openMailbox(memoryStore(records));
  let judged = 0;
  const telling = (done: number) => (judged = done);
  await filterReport(second, telling);
  expect(judged).toBe(0);
  await act(second, next(), { ids: [0] }, { do: 'mark', junk: true });
  // Asked twice at once they are judged once.
  let beside = 0;
  await Promise.all([filterReport(second, telling), second.junk.judge([0, 1, 2], (done) => (beside = done))]);
  expect(judged + beside).toBe(12);
  second.close();
});

test('mail that did not come in by its date is judged as it lies in storage: each pack is read once', async () => {
  const records = new Map<string, unknown>();
  const first = await begun(records);
  const days = 4 * rawPackSize;
  // Its date jumps to and fro over all packs.
  const list = Array.from({ length: days }, (_, n) => ({
    ...mailOf(
      {
        From: 'd@harbour.example',
        Date: new Date(Date.UTC(2026, 0, 1 + ((n * 7) % days))).toUTCString(),
        Subject: `Tide table ${n}`,
        'Message-ID': `<t${n}@harbour.example>`,
      },
      `High water of day ${n}.`,
    ),
    place: null,
  }));
  await arrive(first, ...list);
  await first.flush();
  first.close();
  const { mailbox: second, read } = await openHearing(records, 'raw/');
  await filterReport(second, () => undefined);
  expect(second.columns.count).toBe(days + 12);
  expect(read).toEqual([...new Set(read)]);
  expect(read).toHaveLength(5);
  second.close();
});

test('what is stored is what was learned beyond the shipped model; on another shipped model the marks are learned anew', async () => {
  const shipped = new JunkModel();
  for (let slot = 0; slot < slots; slot += 5) shipped.weights[slot] = slot % 2_000;
  const opened = async (records: Map<string, unknown>, model: JunkModel) => {
    const mailbox = await openMailbox(memoryStore(records));
    mailbox.junk.fetchShipped = () => Promise.resolve(writeModel(model));
    return mailbox;
  };
  const records = new Map<string, unknown>();
  const unmarked = await begun(records);
  await filter(unmarked, { shipped: true });
  await unmarked.flush();
  unmarked.close();
  const first = await opened(records, shipped);
  await markAll(first);
  await first.junk.judge([0, 7]);
  const file = await first.junk.file();
  await first.flush();
  first.close();
  const stored = records.get('junk') as { model: Uint8Array; fresh: Uint32Array };
  expect(stored.model.length).toBeLessThan(writeModel(shipped).length / 10);
  expect([...stored.fresh]).toEqual([(1 << 0) | (1 << 7)]);

  const same = await opened(new Map(records), shipped);
  // Compared at once: a matcher would look at each byte by itself.
  expect(Buffer.from(await same.junk.file()).equals(file)).toBe(true);
  same.close();

  const other = shipped.copy();
  other.weights[11] = 4_000;
  const anew = await opened(new Map(records), other);
  const learned = readModel(await anew.junk.file());
  if (!learned.ok) throw new Error(learned.error);
  expect(learned.model.weights[11]).toBeGreaterThan(3_900);
  expect(await anew.junk.taughtCounts()).toEqual({ junk: 6, good: 6 });
  anew.close();
});
