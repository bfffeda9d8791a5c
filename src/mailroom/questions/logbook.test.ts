// The Logbook: filtered by who, what, when and message; kept to a size, and what is left still rebuilds all state.
import { act } from '../commands/acts';
import { changeSetup } from '../commands/changeSetup';
import { addMessages } from '../intake/incoming';
import { logbook, logDetail } from './logbook';
import { wholeLog, type LogFilter } from '../border/log';
import type { Mailbox } from '../service/mailbox';
import { keyOf } from '../storage/keys';
import { mayGo, compact } from '../commands/compaction';
import { memoryStore, type RecordStore } from '../storage/recordStore';
import { fill, incoming, openMailbox, PowerCut, stateOf, storeWithPowerCut, testTime } from '../testing/testing';
import { undo } from '../commands/undo';

const hour = 3_600_000;
const day = 24 * hour;
const label = { id: 'l', name: 'Tide', ink: 'sea' as const };

/** A day's work, an hour between any two commands. */
async function worked(store: RecordStore = memoryStore(), start = testTime): Promise<Mailbox> {
  let clock = start;
  const mailbox = await openMailbox(store, () => (clock += hour));
  await fill(mailbox, 10);
  await act(mailbox, 'read', { ids: [1, 2] }, { do: 'read', value: true });
  await act(mailbox, 'flag', { ids: [2, 3] }, { do: 'flag', value: true });
  await changeSetup(mailbox, 'label', [{ list: 'labels', id: 'l', item: label }], 'Made the label Tide', false);
  await act(mailbox, 'labelled', { ids: [3] }, { do: 'label', label: 'l', value: true });
  await act(mailbox, 'move', { ids: [3, 4] }, { do: 'move', place: 'archive' });
  await undo(mailbox, 'undo', 6);
  await mailbox.exclusive(() =>
    addMessages(mailbox, [incoming(50)], { command: 'p/1', by: 'post office', says: '1 message arrived' }),
  );
  return mailbox;
}

test('what a rule did: as mail came in, run over what is here, and of how many messages of each entry', async () => {
  const mailbox = await worked();
  const rule = {
    id: 'r',
    name: 'To the Archive',
    on: true,
    when: {
      match: 'all' as const,
      of: [{ field: 'from' as const, how: 'is' as const, text: 'sender1@harbour.example' }],
    },
    unless: null,
    then: [{ do: 'move' as const, place: 'archive' as const }],
  };
  await changeSetup(mailbox, 'rule', [{ list: 'rules', id: 'r', item: rule }], 'Made a rule', true);
  const by = incoming(51, 'sender1@harbour.example');
  const other = incoming(52, 'sender2@harbour.example');
  await mailbox.exclusive(() =>
    addMessages(mailbox, [by, other], { command: 'q/1', by: 'post office', says: '2 messages arrived' }),
  );
  const { entries } = await logbook(mailbox, { ...wholeLog, decidedBy: 'rule:r' }, 0, 99);
  expect(entries.map((e) => [e.says, e.count, e.decided])).toEqual([
    ['2 messages arrived', 2, 1],
    [expect.stringContaining('Made a rule, and sorted'), 3, 3],
  ]);
  // Acts of the person on the same messages are none of the rule's.
  await act(mailbox, 'back', { ids: [1] }, { do: 'move', place: 'bin' });
  expect((await logbook(mailbox, { ...wholeLog, decidedBy: 'rule:r' }, 0, 99)).total).toBe(2);
  expect(entries[0].keptUntil - entries[0].at).toBe(90 * day);
});

describe('filtered', () => {
  test.each<[Partial<LogFilter>, number[]]>([
    [{}, [8, 7, 6, 5, 4, 3, 2, 1]],
    [{ who: 'you' }, [7, 6, 5, 4, 3, 2, 1]],
    [{ who: 'post office' }, [8]],
    [{ who: 'Wide Sort' }, []],
    [{ what: 'moved' }, [7, 6]],
    [{ what: 'undone' }, [7]],
    [{ what: 'marked' }, [2]],
    [{ what: 'flagged' }, [3]],
    [{ what: 'labelled' }, [5]],
    [{ what: 'setup' }, [4]],
    [{ what: 'arrived' }, [8, 1]],
    [{ what: 'deleted' }, []],
    [{ message: 3 }, [7, 6, 5, 3, 1]],
    [{ message: 10 }, [8]],
    [{ message: 99 }, []],
    [{ decidedBy: 'rule:nobody' }, []],
    [{ words: 'tide' }, [5, 4]],
    [{ words: 'TIDE', what: 'setup', who: 'you' }, [4]],
  ])('%j', async (some, expected) => {
    const { entries, total } = await logbook(await worked(), { ...wholeLog, ...some }, 0, 99);
    expect(entries.map((e) => e.seq)).toEqual(expected);
    expect(total).toBe(expected.length);
  });

  test('by time: since is with, before is without', async () => {
    const mailbox = await worked();
    const at = (seq: number) => mailbox.heads[seq - 1].at;
    const { entries } = await logbook(mailbox, { ...wholeLog, since: at(3), before: at(6) }, 0, 99);
    expect(entries.map((e) => e.seq)).toEqual([5, 4, 3]);
  });

  test('an entry shows its messages, and of arrivals who decided', async () => {
    const mailbox = await worked();
    expect((await logDetail(mailbox, 6))?.rows.map((row) => row.id)).toEqual([4, 3]);
    const arrived = await logDetail(mailbox, 1);
    expect(arrived).toMatchObject({ total: 10, gone: 0, decided: [{ who: 'Inbox', count: 10, setting: null }] });
    expect((await logDetail(mailbox, 4))?.rows).toEqual([]);
    expect(await logDetail(mailbox, 99)).toBeNull();
    expect((await logbook(mailbox, { ...wholeLog, message: 3 }, 0, 1)).message).toMatchObject({ id: 3 });
  });
});

describe('kept to a size', () => {
  const old = testTime - 200 * day;

  test('only what is too many, too old, and whole jobs', () => {
    const head = (command: string, at: number) => ({ command, at }) as Parameters<typeof mayGo>[0][number];
    const heads = [1, 2, 3, 4, 5].map((n) => head(`c${n}`, old));
    expect(mayGo(heads, testTime, 30, 2)).toBe(3);
    expect(mayGo(heads, testTime, 30, 5)).toBe(0);
    // Younger than 90 days, or than Junk keeps its mail: all of it stays.
    expect(mayGo(heads, old + 89 * day, 30, 2)).toBe(0);
    expect(mayGo(heads, old + 91 * day, 30, 2)).toBe(3);
    expect(mayGo(heads, old + 91 * day, 120, 2)).toBe(0);
    const job = [head('a', old), head('j/1', old), head('j/2', old), head('b', old)];
    expect(mayGo(job, testTime, 30, 2)).toBe(1);
    expect(mayGo(job, testTime, 30, 1)).toBe(3);
  });

  /** A mailbox of an old day, opened today and shortened to its three newest entries. */
  async function shortened(records = new Map<string, unknown>()): Promise<Mailbox> {
    const before = await worked(memoryStore(records), old);
    await before.flush();
    before.close();
    const mailbox = await openMailbox(memoryStore(records));
    expect(await compact(mailbox, 3)).toBe(5);
    return mailbox;
  }

  test('what went is told, what stayed can still be undone, also after opening again', async () => {
    const records = new Map<string, unknown>();
    const mailbox = await shortened(records);
    const now = stateOf(mailbox);
    const { entries, keptSince } = await logbook(mailbox, wholeLog, 0, 99);
    expect(entries.map((e) => e.seq)).toEqual([8, 7, 6]);
    expect(keptSince).toBe(entries[2].at);
    expect([...records.keys()].filter((key) => key.startsWith('journal/'))).toEqual([6, 7, 8].map(keyOf.journal));
    mailbox.close();
    const again = await openMailbox(memoryStore(records));
    expect(stateOf(again)).toEqual(now);
    expect(await logbook(again, wholeLog, 0, 9)).toMatchObject({ total: 3, keptSince });
    expect(await undo(again, 'again', 7)).toMatchObject({ ok: true, receipt: { count: 2 } });
    expect(again.views.list({ kind: 'place', place: 'archive' })).toHaveLength(2);
  });

  test.each([
    ['a state pack', [keyOf.state(0)]],
    ['what says how far it is', [keyOf.meta]],
    ['both', [keyOf.meta, keyOf.state(0)]],
  ])('%s spoilt after it: the checkpoint and the rest of the journal rebuild all', async (_what, keys) => {
    const records = new Map<string, unknown>();
    const mailbox = await shortened(records);
    await act(mailbox, 'later', { ids: [7, 8] }, { do: 'move', place: 'bin' });
    await fill(mailbox, 2, 70);
    await mailbox.flush();
    mailbox.close();
    const now = stateOf(mailbox);
    for (const key of keys) records.set(key, { v: 1, nonsense: true });
    const again = await openMailbox(memoryStore(records));
    expect(stateOf(again)).toEqual(now);
    expect(again.troubles.length).toBeGreaterThan(0);
    expect(again.seq).toBe(10);
  });

  test('the power goes at every single write of it: nothing is ever lost', async () => {
    const base = new Map<string, unknown>();
    const before = await worked(memoryStore(base), old);
    await before.flush();
    before.close();
    const whole = stateOf(before);
    let cut = 0;
    for (let n = 1; ; n++) {
      const records = new Map(base);
      const store = storeWithPowerCut(records, n);
      const mailbox = await openMailbox(store);
      const died = await compact(mailbox, 3).then(
        () => false,
        (error: unknown) => {
          if (error instanceof PowerCut) return true;
          throw error;
        },
      );
      mailbox.close();
      if (!died) break;
      cut++;
      const again = await openMailbox(memoryStore(records));
      expect(stateOf(again)).toEqual(whole);
      expect(again.seq).toBe(8);
      // It goes on where it was cut, and leaves nothing of what went.
      await compact(again, 3);
      await act(again, 'more', { ids: [9] }, { do: 'flag', value: true });
      expect((await logbook(again, { ...wholeLog, who: 'you' }, 0, 1)).entries[0].seq).toBe(9);
      again.close();
    }
    expect(cut).toBeGreaterThan(6);
  });
});
