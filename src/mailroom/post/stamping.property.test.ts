// Any stamp on any messages: it equals its acts one by one, undone it leaves everything as it was, and killed at any write it
// is whole or not there.
import { cases } from '../../../bench/chance';
import fc from 'fast-check';
import type { Action } from '../../core/effects/effects';
import { dueOn } from '../../core/agenda/due';
import { putOffTo } from '../../core/delivery/putOff';
import { stampSchema, stampTrouble, type Stamp } from '../../core/stamps/stamp';
import type { Act } from '../border/views';
import { act } from '../commands/acts';
import { stampPlan } from '../commands/stampPlan';
import { thinOut } from '../commands/thinOut';
import { undo } from '../commands/undo';
import type { Mailbox } from '../service/mailbox';
import { inks } from '../../core/mail/label';
import { memoryStore } from '../storage/recordStore';
import { addMessages } from '../intake/incoming';
import { applyStamp } from './stamping';
import { mailOf, openMailbox, PowerCut, stateOf, storeWithPowerCut, testTime } from '../testing/testing';

const going = { due: testTime + 10_000, zone: 0 };
const none = new Set<string>();

/** Conversations of several messages, one within another's text, by lists and by people. */
const mail = Array.from({ length: 14 }, (_, n) =>
  mailOf(
    {
      From: `Ann <a${n % 4}@x${n % 3}.example>`,
      To: 'me@y.example',
      Subject: `${n % 3 ? 'Re: ' : ''}Berth ${n % 5}`,
      'Message-ID': `<m${n}@x.example>`,
      Date: `Tue, 24 Nov 2026 0${n % 8}:00:00 +0000`,
      ...(n >= 5 ? { References: `<m${n - 5}@x.example>` } : {}),
      ...(n % 4 === 0 ? { 'List-Id': '<crew.ferry.example>' } : {}),
    },
    n >= 5
      ? `Answer ${n}\n\nOn Tue Ann wrote:\n> Text of ${n - 5}, which is long enough`
      : `Text of ${n}, which is long enough`,
  ),
);

async function filled(store = memoryStore()): Promise<Mailbox> {
  const mailbox = await openMailbox(store);
  await mailbox.exclusive(async () => {
    await mailbox.commit({
      command: 'setup',
      by: 'you',
      says: 'Set up',
      postOn: true,
      setup: [
        { list: 'accounts', id: 'me', item: { id: 'me', name: 'Me', address: 'me@y.example' } },
        { list: 'folders', id: 'f1', item: { id: 'f1', name: 'Bills' } },
        { list: 'labels', id: 'l1', item: { id: 'l1', name: 'Crew', ink: 'sea' } },
        { list: 'labels', id: 'l2', item: { id: 'l2', name: 'Parts', ink: 'moss' } },
        {
          list: 'trays',
          id: 't1',
          item: { id: 't1', name: 'Notices', when: null, labels: [], round: { by: 'never' }, since: 0 },
        },
        { list: 'blocks', id: 'b1', item: { id: 'b1', name: 'thanks', html: '<p>Thanks</p>' } },
      ],
    });
    await addMessages(mailbox, mail, { command: 'mail', by: 'you', says: 'Came' });
  });
  return mailbox;
}

const state = (mailbox: Mailbox): string =>
  JSON.stringify([
    stateOf(mailbox),
    [...mailbox.items.all.values()],
    mailbox.drafts.list().map(({ to, subject }) => [to, subject]),
  ]);

const acts: fc.Arbitrary<Action> = fc.oneof(
  fc.constantFrom<Action>(
    { do: 'move', place: 'archive' },
    { do: 'move', place: 'bin' },
    { do: 'move', place: 'junk' },
    { do: 'move', place: 'folder:f1' },
    { do: 'tray', tray: 't1' },
    { do: 'putOff', until: 'tomorrow morning' },
    { do: 'label', label: 'l1' },
    { do: 'label', label: 'l2' },
    { do: 'unlabel', label: 'l1' },
    { do: 'read' },
    { do: 'unread' },
    { do: 'done' },
    { do: 'silence', place: 'archive' },
    { do: 'silence', place: 'bin' },
    { do: 'thinOut' },
    { do: 'task', due: 'this week' },
    { do: 'task', due: 'none' },
    { do: 'standing', of: 'address', standing: 'blocked' },
    { do: 'standing', of: 'list', standing: 'safe' },
    { do: 'answer', block: 'b1' },
    { do: 'forward', to: 'boss@y.example', form: 'text' },
    { do: 'appointment' },
  ),
  fc.constantFrom(...inks).map((ink): Action => ({ do: 'ink', ink })),
  fc.constantFrom('none' as const, 'today' as const, 'next week' as const).map((due): Action => ({ do: 'flag', due })),
);
const stamps = fc
  .array(acts, { minLength: 1, maxLength: 7 })
  .filter((list) => stampTrouble({ acts: list }) === null)
  .map((list): Stamp => stampSchema.parse({ id: 's', name: 'S', icon: 'stamp', ink: null, acts: list }));
const chosen = fc.uniqueArray(fc.nat(mail.length - 1), { minLength: 1, maxLength: 8 });
/** What was done before it, so that a stamp meets more than fresh mail. */
const before = fc.array(fc.tuple(stamps, chosen), { maxLength: 2 });

/** An act of a stamp as a person does it by itself. */
function alone(action: Action, { setup }: Mailbox): Act | null {
  switch (action.do) {
    case 'move':
    case 'tray':
    case 'done':
      return action;
    case 'label':
      return { ...action, value: true };
    case 'unlabel':
      return { do: 'label', label: action.label, value: false };
    case 'read':
      return { do: 'read', value: true };
    case 'unread':
      return { do: 'read', value: false };
    case 'silence':
      return { ...action, value: true };
    case 'flag':
      return { do: 'flag', value: true, ...(action.due === 'none' ? {} : { due: dueOn(action.due, testTime) }) };
    case 'putOff':
      return { do: 'putOff', until: putOffTo(action.until, testTime, setup.delivery.morning) ?? 0 };
    default:
      return null;
  }
}

test('a stamp equals its acts one by one, and undone leaves everything as it was', async () => {
  let n = 0;
  await fc.assert(
    fc.asyncProperty(before, stamps, chosen, async (earlier, stamp, ids) => {
      const [one, other] = [await filled(), await filled()];
      for (const [done, on] of earlier)
        for (const mailbox of [one, other])
          await applyStamp(
            mailbox,
            `before-${n++}`,
            {
              ...done,
              acts: done.acts.filter(
                ({ do: kind }) => kind !== 'answer' && kind !== 'forward' && kind !== 'task' && kind !== 'standing',
              ),
            },
            { ids: on },
            true,
            going,
            none,
          ).catch(() => undefined);
      const was = state(one);
      const receipt = await applyStamp(one, `stamp-${n++}`, stamp, { ids }, true, going, none).catch(
        (error: Error) => error.message,
      );
      if (typeof receipt === 'string') {
        expect(receipt).toMatch(/Nothing was changed/);
        expect(state(one)).toBe(was);
      } else {
        for (const action of stamp.acts) {
          const its = alone(action, other);
          if (its) await act(other, `act-${n++}`, { ids }, its);
          else if (action.do === 'ink')
            await applyStamp(other, `act-${n++}`, { ...stamp, acts: [action] }, { ids }, true, going, none);
          else if (action.do === 'thinOut') {
            const conversations = new Set(ids.map((id) => other.derived.conversation[id]));
            for (const conversation of conversations)
              await thinOut(
                other,
                `act-${n++}`,
                ids.find((id) => other.derived.conversation[id] === conversation) ?? 0,
              );
          }
        }
        expect(stateOf(one).messages).toEqual(stateOf(other).messages);
        // What is sent is said to stay; of the rest nothing is left.
        if (receipt.seq !== null) {
          const sent = one.drafts.list().map(({ to, subject }) => [to, subject]);
          const undone = await undo(one, `undo-${n++}`, receipt.seq);
          if (sent.length > 0) expect(receipt.says).toMatch(/no Undo takes back/);
          if (!undone.ok) expect(undone.error).toMatch(/Nothing of it is left to undo/);
          expect(JSON.stringify([stateOf(one), [...one.items.all.values()], sent])).toBe(
            JSON.stringify([...(JSON.parse(was) as unknown[]).slice(0, 2), sent]),
          );
        }
      }
      one.close();
      other.close();
    }),
    { numRuns: Number(process.env.STAMPS ?? cases(30)) },
  );
});

test('killed at any write it is whole or not there, and so is what it sends', async () => {
  await fc.assert(
    fc.asyncProperty(stamps, chosen, fc.integer({ min: 1, max: 12 }), async (stamp, ids, at) => {
      const records = new Map<string, unknown>();
      const whole = await filled(memoryStore(records));
      await whole.flush();
      const start = new Map(records);
      const was = state(whole);
      const receipt = await applyStamp(whole, 'stamp', stamp, { ids }, true, going, none).catch(() => null);
      const is = state(whole);
      const sends = whole.drafts.list().length;
      whole.close();
      const broken = await openMailbox(storeWithPowerCut(start, at));
      await applyStamp(broken, 'stamp', stamp, { ids }, true, going, none).catch((error: unknown) => {
        if (!(error instanceof PowerCut) && !(error instanceof Error)) throw error;
      });
      broken.close();
      const again = await openMailbox(memoryStore(start));
      const { settleFollowing } = await import('./following');
      await settleFollowing(again);
      const there = again.commands.has('stamp');
      expect(JSON.parse(state(again))).toEqual(JSON.parse(there ? is : was));
      expect(again.drafts.list()).toHaveLength(there ? sends : 0);
      if (receipt === null) expect(there).toBe(false);
      again.close();
    }),
    { numRuns: Number(process.env.STAMPS ?? cases(30)) },
  );
});

test('what can’t be finished changes nothing and says why; the sender of a list-less message has none', async () => {
  const mailbox = await filled();
  const stamp = (...list: Action[]): Stamp => ({ id: 's', name: 'S', icon: 'stamp', ink: null, acts: list });
  const was = state(mailbox);
  const error = (its: Stamp, sure = true) =>
    applyStamp(mailbox, 'x', its, { ids: [0, 1] }, sure, going, none).then(
      ({ says }) => says,
      (failure: Error) => failure.message,
    );
  expect(await error(stamp({ do: 'read' }, { do: 'move', place: 'folder:gone' }))).toMatch(
    /no folder.*Nothing was changed/,
  );
  expect(
    await error(stamp({ do: 'read' }, { do: 'forward', to: '', whom: { by: 'role', role: 'manager' }, form: 'text' })),
  ).toMatch(/Nobody is my manager/);
  expect(await error(stamp({ do: 'delete' }), false)).toMatch(/not asked/);
  expect(await error(stamp({ do: 'standing', of: 'domain', standing: 'blocked' }, { do: 'read' }))).toMatch(
    /from now on/,
  );
  expect(state(mailbox)).not.toBe(was);
  const plan = await stampPlan(
    mailbox,
    stamp({ do: 'standing', of: 'list', standing: 'safe' }),
    Int32Array.of(1),
    'x',
    none,
  );
  expect(plan.setup).toEqual([]);
  mailbox.close();
});

test('deleted for good it is said, and no Undo brings it back', async () => {
  const mailbox = await filled();
  const stamp: Stamp = { id: 's', name: 'Gone', icon: 'bin', ink: null, acts: [{ do: 'read' }, { do: 'delete' }] };
  const { seq, says } = await applyStamp(mailbox, 'x', stamp, { ids: [0, 1] }, true, going, none);
  expect(says).toBe('Stamp “Gone”: Marked 2 messages as read; deleted 2 messages for good');
  expect(await undo(mailbox, 'y', seq ?? 0)).toEqual({
    ok: false,
    error: 'What was deleted for good cannot be brought back.',
  });
  mailbox.close();
});
