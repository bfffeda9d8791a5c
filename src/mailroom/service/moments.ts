// Everything in the mailroom that falls due by itself.
import { ageMail, nextOfAge } from '../commands/ageing';
import { compact } from '../commands/compaction';
import { hasToErase } from '../commands/erasing';
import { deliver, nextDelivery } from '../commands/delivering';
import { bringBack, nextReturn } from '../commands/puttingOff';
import { nextDeletion, tidy } from '../commands/retention';
import { fallenDue, nextReminder } from '../questions/agenda';
import { itemsFallenDue, nextItemReminder } from '../questions/dated';
import { rowOf } from '../questions/row';
import { every, type Moment } from '../time/moments';
import type { Open, ServiceHost } from './host';
import type { Outbox } from '../post/sending';
import type { PostRoom } from './post';

/** How often the post office is asked, in milliseconds. */
const checkEvery = 10_000;
const compactEvery = 3_600_000;
/** Of so many messages at most that came back together it is told. */
const mostTold = 100;

/** The kinds of moments, in the order in which they are looked at. */
export function momentsOf(open: Open, host: ServiceHost, post: PostRoom, outbox: Outbox): Moment[] {
  return [
    { name: 'sending', next: (now) => outbox.next(now), due: (now) => outbox.due(now) },
    every('post office', checkEvery, post.check),
    {
      name: 'retention',
      // At once where a crash came between a deletion and its carrying out.
      next: (now) => (hasToErase(open.mailbox) ? now : nextDeletion(open.mailbox)),
      due: () => open.mailbox.exclusive(() => tidy(open.mailbox)),
    },
    {
      name: 'what is put off',
      next: (now) => nextReturn(open.mailbox, now),
      due: async (now) => {
        const ids = await open.mailbox.exclusive(() => bringBack(open.mailbox, now));
        const told = ids.slice(0, mostTold);
        await open.mailbox.envelopes.ensure(told, open.mailbox.columns.count);
        if (told.length) host.tell({ kind: 'back', rows: told.map((id) => rowOf(open.mailbox, id)) });
      },
    },
    {
      name: 'deliveries',
      next: (now) => nextDelivery(open.mailbox, now),
      due: (now) => open.mailbox.exclusive(() => deliver(open.mailbox, now)),
    },
    {
      name: 'rules on age',
      // Never asked yet, it begins to count.
      next: (now) => (open.mailbox.agedAt === 0 ? now : nextOfAge(open.mailbox, open.mailbox.agedAt)),
      due: () => open.mailbox.exclusive(() => ageMail(open.mailbox)),
    },
    {
      name: 'reminders',
      next: (now) => {
        const from = open.mailbox.remindedAt;
        if (from === 0) return now;
        const [flag, item] = [nextReminder(open.mailbox, from), nextItemReminder(open.mailbox, from)];
        return flag === null || item === null ? (flag ?? item) : Math.min(flag, item);
      },
      due: async (now) => {
        const from = open.mailbox.remindedAt || now;
        open.mailbox.remindedAt = now;
        const rows = await fallenDue(open.mailbox, from, now);
        const items = await itemsFallenDue(open.mailbox, from, now);
        if (rows.length) host.tell({ kind: 'due', rows });
        if (items.length) host.tell({ kind: 'items due', items });
        open.mailbox.storeSoon();
      },
    },
    every('compaction', compactEvery, () => open.mailbox.exclusive(() => compact(open.mailbox))),
  ];
}
