// Put off: in Held until its moment or an answer, then on top of the Inbox, exactly once, whatever comes in between.
import fc from 'fast-check';
import { parseEnvelope } from '../../core/mail/envelope';
import { addMessages, type Incoming } from '../intake/incoming';
import { undo } from './undo';
import { act } from './acts';
import { bringBack, nextReturn } from './puttingOff';
import { agenda } from '../questions/agenda';
import { months } from '../questions/months';
import { memoryStore, type RecordStore } from '../storage/recordStore';
import { incoming, openMailbox, testTime } from '../testing/testing';
import { rowOf } from '../questions/row';

type Box = Awaited<ReturnType<typeof openMailbox>>;
const hour = 3_600_000;
const inbox = { kind: 'place', place: 'inbox' } as const;
const held = { kind: 'place', place: 'held' } as const;

async function boxOf(count: number, records = new Map<string, unknown>(), clock = { now: testTime }) {
  const mailbox = await openMailbox(memoryStore(records), () => clock.now);
  await addMessages(
    mailbox,
    Array.from({ length: count }, (_, n) => incoming(n)),
    { command: 'fill', by: 'you', says: 'Filled' },
  );
  return { mailbox, records, clock };
}

const putOff = (mailbox: Box, ids: number[], until: number, command = `off ${ids.join()} ${until}`) =>
  act(mailbox, command, { ids }, { do: 'putOff', until });
const wake = async (mailbox: Box, now: number) => (await mailbox.exclusive(() => bringBack(mailbox, now))).length;

test('it waits in Held, and comes back on top as of its moment; the row and the Logbook say so', async () => {
  const { mailbox, clock } = await boxOf(5);
  const until = testTime + 3 * hour;
  expect((await putOff(mailbox, [1], until)).says).toMatch(/^Put off “Message 1” until /);
  expect([...mailbox.views.list(held)]).toEqual([1]);
  expect(rowOf(mailbox, 1)).toMatchObject({ place: 'held', until, back: null });
  expect((await agenda(mailbox)).putOff.map(({ id }) => id)).toEqual([1]);
  expect(nextReturn(mailbox, clock.now)).toBe(until);
  expect(await wake(mailbox, until - 1)).toBe(0);
  // Hours late: it has the moment at which it fell due all the same.
  clock.now = until + 5 * hour;
  expect(await wake(mailbox, clock.now)).toBe(1);
  expect([...mailbox.views.list(inbox)]).toEqual([1, 4, 3, 2, 0]);
  expect(rowOf(mailbox, 1)).toMatchObject({ place: 'inbox', until: null, back: until });
  expect(mailbox.heads.at(-1)).toMatchObject({ by: 'Wide Sort', says: 'Back in the Inbox, as put off: “Message 1”' });
  expect(nextReturn(mailbox, clock.now)).toBeNull();
  expect(await wake(mailbox, clock.now + hour)).toBe(0);
  expect((await months(mailbox, inbox, { grouped: false, elsewhere: true })).reduce((n, { rows }) => n + rows, 0)).toBe(
    5,
  );
  // Archived, it stands by its date again.
  await act(mailbox, 'archive', { ids: [0, 1, 2] }, { do: 'move', place: 'archive' });
  expect([...mailbox.views.list({ kind: 'place', place: 'archive' })]).toEqual([2, 1, 0]);
});

test('what fell due while the page was closed comes back in the order in which it fell due', async () => {
  const { mailbox, records, clock } = await boxOf(4);
  await putOff(mailbox, [0], testTime + 2 * hour);
  await putOff(mailbox, [3], testTime + hour);
  await putOff(mailbox, [2], testTime + 9 * hour);
  await mailbox.flush();
  mailbox.close();
  clock.now = testTime + 4 * hour;
  const again = await openMailbox(memoryStore(records), () => clock.now);
  await again.ready();
  expect(await wake(again, clock.now)).toBe(2);
  expect([...again.views.list(inbox)]).toEqual([0, 3, 1]);
  expect([...again.views.list(held)]).toEqual([2]);
});

test('undone it is where it was; undoing after it came back is refused; its coming back can’t be undone', async () => {
  const { mailbox, clock } = await boxOf(3);
  const { seq } = await putOff(mailbox, [0, 1], testTime + hour);
  expect(await undo(mailbox, 'u', seq ?? 0)).toMatchObject({ ok: true, receipt: { count: 2 } });
  expect([...mailbox.views.list(inbox)]).toEqual([2, 1, 0]);
  expect(mailbox.columns.until[0]).toBe(0);
  const second = await putOff(mailbox, [0], testTime + hour);
  // Put off for longer, undone: the earlier moment holds again.
  const longer = await putOff(mailbox, [0], testTime + 5 * hour);
  await undo(mailbox, 'u2', longer.seq ?? 0);
  expect(nextReturn(mailbox, clock.now)).toBe(testTime + hour);
  clock.now = testTime + 2 * hour;
  await wake(mailbox, clock.now);
  expect(await undo(mailbox, 'u3', second.seq ?? 0)).toMatchObject({ ok: false });
  expect(await undo(mailbox, 'u4', mailbox.seq)).toMatchObject({
    ok: false,
    error: expect.stringMatching(/can’t be undone/),
  });
});

/** An answer to message `n` of {@link incoming}, as the one with the number `as`. */
function answerTo(n: number, as: number): Incoming {
  const one = incoming(as, 'ann@harbour.example');
  const text = new TextDecoder().decode(one.stored.bytes);
  const bytes = new TextEncoder().encode(text.replace('\r\n\r\n', `\r\nIn-Reply-To: <${n}@harbour.example>\r\n\r\n`));
  return { ...one, stored: { ...one.stored, bytes }, envelope: { ...parseEnvelope(bytes), key: `key ${as}` } };
}

test('an answer that comes earlier brings it back; what came before, and other mail, does not', async () => {
  const { mailbox, clock } = await boxOf(3);
  const come = (n: number, as: number) =>
    addMessages(mailbox, [answerTo(n, as)], { command: `come ${as}`, by: 'post office', says: 'Came' });
  await come(0, 10);
  await putOff(mailbox, [0], testTime + 9 * hour);
  await putOff(mailbox, [1], testTime + 8 * hour);
  // Moved about meanwhile: what was there before is no answer.
  await act(mailbox, 'a', { ids: [3] }, { do: 'move', place: 'archive' });
  clock.now = testTime + hour;
  expect(nextReturn(mailbox, clock.now)).toBe(testTime + 8 * hour);
  await come(2, 11);
  expect(nextReturn(mailbox, clock.now)).toBe(testTime + 8 * hour);
  await come(0, 12);
  expect(nextReturn(mailbox, clock.now)).toBe(clock.now);
  expect(await wake(mailbox, clock.now)).toBe(1);
  expect(mailbox.heads.at(-1)?.says).toBe('Back in the Inbox, as an answer came: “Message 0”');
  expect(mailbox.views.list(inbox)[0]).toBe(0);
  expect([...mailbox.views.list(held)]).toEqual([1]);
});

test('refused in words: a moment that is past or none, Held by a move; Junk and the Bin stay', async () => {
  const { mailbox } = await boxOf(3);
  await expect(putOff(mailbox, [0], testTime - 1)).rejects.toThrow(/past/);
  await expect(putOff(mailbox, [0], 1e300)).rejects.toThrow(/past/);
  await expect(act(mailbox, 'm', { ids: [0] }, { do: 'move', place: 'held' })).rejects.toThrow(
    /Held takes only what is put off/,
  );
  await act(mailbox, 'j', { ids: [1] }, { do: 'move', place: 'junk' });
  expect((await putOff(mailbox, [1], testTime + hour)).count).toBe(0);
});

test('a clock that jumps delivers nothing twice, nothing too early by its own reckoning, and loses nothing', async () => {
  const { mailbox, clock } = await boxOf(2);
  const until = testTime + 24 * hour;
  await putOff(mailbox, [0], until);
  clock.now = testTime - 400 * 24 * hour;
  expect(await wake(mailbox, clock.now)).toBe(0);
  expect([...mailbox.views.list(held)]).toEqual([0]);
  clock.now = until;
  expect(await wake(mailbox, clock.now)).toBe(1);
  clock.now = testTime;
  expect(await wake(mailbox, clock.now)).toBe(0);
  expect([...mailbox.views.list(inbox)]).toEqual([0, 1]);
});

/** A store that dies at a write, after so many. */
function dying(records: Map<string, unknown>, after: number): RecordStore {
  const inner = memoryStore(records);
  let left = after;
  return {
    ...inner,
    set: async (key, value) => {
      if (left-- <= 0) throw new Error('killed');
      await inner.set(key, value);
    },
  };
}

test('property: whatever is put off, moved, undone, awaited and killed, each is in one place, back once and never early', async () => {
  const step = fc.oneof(
    fc.record({ do: fc.constant('off' as const), id: fc.nat(5), hours: fc.integer({ min: 1, max: 40 }) }),
    fc.record({
      do: fc.constant('move' as const),
      id: fc.nat(5),
      place: fc.constantFrom('archive' as const, 'inbox' as const, 'bin' as const),
    }),
    fc.record({ do: fc.constant('wait' as const), hours: fc.integer({ min: -30, max: 60 }) }),
    fc.record({ do: fc.constant('undo' as const) }),
    fc.record({ do: fc.constant('kill' as const), writes: fc.nat(3) }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 14 }), async (steps) => {
      const clock = { now: testTime };
      const records = new Map<string, unknown>();
      let { mailbox } = await boxOf(6, records, clock);
      await mailbox.flush();
      /** The moment until which each waits, by what was said done. */
      const waits = new Map<number, number>();
      const look = () => {
        for (let id = 0; id < 6; id++) {
          const isHeld = mailbox.tables.place(mailbox.columns.place[id]) === 'held';
          expect([id, isHeld]).toEqual([id, waits.has(id)]);
          if (isHeld) expect(mailbox.columns.until[id]).toBe(waits.get(id));
        }
      };
      const deliver = async () => {
        const before = mailbox.seq;
        const due = [...waits].filter(([, until]) => until <= clock.now).map(([id]) => id);
        expect(await wake(mailbox, clock.now)).toBe(due.length);
        expect(mailbox.seq).toBe(before + (due.length ? 1 : 0));
        for (const id of due) {
          expect(mailbox.columns.delivered[id]).toBe(waits.get(id));
          waits.delete(id);
        }
        expect(await wake(mailbox, clock.now)).toBe(0);
      };
      let last: { seq: number; before: Map<number, number> } | null = null;
      for (const [n, one] of steps.entries()) {
        const before = new Map(waits);
        if (one.do === 'off') {
          const until = clock.now + one.hours * hour;
          const came = await putOff(mailbox, [one.id], until, `off ${n}`);
          if (came.count) waits.set(one.id, until);
          last = came.seq ? { seq: came.seq, before } : null;
        } else if (one.do === 'move') {
          const came = await act(mailbox, `move ${n}`, { ids: [one.id] }, { do: 'move', place: one.place });
          if (came.count) waits.delete(one.id);
          last = came.seq ? { seq: came.seq, before } : null;
        } else if (one.do === 'wait') {
          clock.now += one.hours * hour;
          await deliver();
          last = null;
        } else if (one.do === 'undo') {
          if (!last) continue;
          expect(await undo(mailbox, `undo ${n}`, last.seq)).toMatchObject({ ok: true });
          waits.clear();
          for (const [id, until] of last.before) waits.set(id, until);
          last = null;
        } else {
          // Killed while it delivers what is due: at the next opening the rest is delivered, nothing twice.
          await mailbox.flush();
          mailbox.close();
          const killed = await openMailbox(dying(records, one.writes), () => clock.now);
          await killed.ready();
          await killed.exclusive(() => bringBack(killed, clock.now)).catch(() => undefined);
          killed.close();
          mailbox = await openMailbox(memoryStore(records), () => clock.now);
          await mailbox.ready();
          const here = (id: number) => mailbox.tables.place(mailbox.columns.place[id]) === 'held';
          for (const [id, until] of [...waits])
            if (!here(id)) {
              expect(until).toBeLessThanOrEqual(clock.now);
              waits.delete(id);
            }
          await deliver();
          last = null;
        }
        look();
      }
      mailbox.close();
    }),
    { numRuns: Number(process.env.RUNS ?? 20) },
  );
});

test('a conversation that is silenced takes along what of it is put off; what is put off later waits for its moment alone', async () => {
  const { mailbox, clock } = await boxOf(2);
  const come = (as: number) =>
    addMessages(mailbox, [answerTo(0, as)], { command: `come ${as}`, by: 'post office', says: 'Came' });
  await come(10);
  await putOff(mailbox, [0], testTime + 9 * hour);
  const { seq, says } = await act(mailbox, 's', { ids: [2] }, { do: 'silence', value: true, place: 'archive' });
  expect(says).toBe('Silenced 2 messages, to the Archive');
  expect(nextReturn(mailbox, clock.now)).toBeNull();
  await undo(mailbox, 'u', seq ?? 0);
  expect([...mailbox.views.list(held)]).toEqual([0]);
  expect(nextReturn(mailbox, clock.now)).toBe(testTime + 9 * hour);
  await act(mailbox, 's2', { ids: [2] }, { do: 'silence', value: true, place: 'archive' });
  await putOff(mailbox, [0], testTime + 8 * hour);
  await come(11);
  expect(nextReturn(mailbox, clock.now)).toBe(testTime + 8 * hour);
});
