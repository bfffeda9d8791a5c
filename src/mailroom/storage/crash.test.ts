// The power goes at every single write of a day's work: each time the mailbox comes back with every command whole or
// not there, and all bytes of what is there can be read.
import { act } from '../commands/acts';
import { changeSetup } from '../commands/changeSetup';
import { undo } from '../commands/undo';
import type { Mailbox } from '../service/mailbox';
import { memoryStore } from './recordStore';
import { fill, incoming, openMailbox, PowerCut, stateOf, storeWithPowerCut } from '../testing/testing';
import { addMessages } from '../intake/incoming';

type Step = (mailbox: Mailbox) => Promise<unknown>;

const day: Step[] = [
  (m) => m.commit({ command: 'begin-own', by: 'Wide Sort', says: 'Began', final: true }),
  (m) => fill(m, 70),
  (m) => act(m, 'a', { view: { kind: 'place', place: 'inbox' } }, { do: 'move', place: 'archive' }),
  (m) => m.flush(),
  (m) => undo(m, 'b', 3),
  (m) =>
    changeSetup(
      m,
      'c',
      [
        {
          list: 'register',
          id: 'e',
          item: { id: 'e', kind: 'address', value: 'sender2@harbour.example', standing: 'blocked', since: 0, why: '' },
        },
      ],
      'Blocked',
      true,
    ),
  (m) =>
    addMessages(m, [incoming(200), incoming(201)], { command: 'd', by: 'post office', says: '2 arrived', cursor: 'x' }),
  (m) => m.flush(),
  (m) => act(m, 'e', { ids: [3, 70, 71] }, { do: 'flag', value: true }),
  (m) => undo(m, 'f', 5),
  (m) => m.flush(),
];

/** The states that the mailbox may be found in: after each command, none in between. */
async function honestStates(): Promise<string[]> {
  const mailbox = await openMailbox(memoryStore());
  const out = [JSON.stringify(stateOf(mailbox))];
  for (const step of day) {
    await step(mailbox);
    out.push(JSON.stringify(stateOf(mailbox)));
  }
  mailbox.close();
  return out;
}

test('the power goes at every write', async () => {
  const states = await honestStates();
  let cuts = 0;
  for (let n = 1; ; n++) {
    const records = new Map<string, unknown>();
    const store = storeWithPowerCut(records, n);
    const mailbox = await openMailbox(store);
    let done = 0;
    let cut = false;
    for (const step of day) {
      try {
        await step(mailbox);
        done++;
      } catch (error) {
        // A failed write is told as such; what counts is what the next start finds.
        expect(error instanceof PowerCut || error instanceof Error).toBe(true);
        cut = true;
        break;
      }
    }
    mailbox.close();
    const again = await openMailbox(memoryStore(records));
    again.close();
    const found = JSON.stringify(stateOf(again));
    // What was acknowledged is there; the command under way is there whole, or not at all.
    expect([states[done], states[Math.min(done + 1, day.length)]]).toContain(found);
    for (let id = 0; id < again.columns.count; id++)
      expect((await again.raws.read(id))?.bytes.length).toBeGreaterThan(0);
    if (!cut) break;
    cuts++;
  }
  expect(cuts).toBe(23);
});

test('state that is written while a command is on its way to the journal knows nothing of that command', async () => {
  const records = new Map<string, unknown>();
  const inner = memoryStore(records);
  let journalWaits: (() => void) | null = null;
  const store = {
    ...inner,
    set: (key: string, value: unknown) =>
      key.startsWith('journal/')
        ? new Promise<void>((resolve) => {
            journalWaits = () => resolve(inner.set(key, value));
          })
        : inner.set(key, value),
  };
  const mailbox = await openMailbox(store);
  const filled = fill(mailbox, 30);
  while (!journalWaits) await new Promise((resolve) => setTimeout(resolve));
  await mailbox.flush();
  const found = await openMailbox(memoryStore(new Map(records)));
  expect([found.columns.count, found.troubles]).toEqual([0, []]);
  (journalWaits as () => void)();
  await filled;
  await mailbox.flush();
  mailbox.close();
  found.close();
  const after = await openMailbox(memoryStore(records));
  expect([after.columns.count, after.troubles]).toEqual([30, []]);
  after.close();
});
