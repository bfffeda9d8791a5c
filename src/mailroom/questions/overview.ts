// The counts for the line on the left.
import type { StorageWatch } from '../storage/storageWatch';
import { fixedPlaces, type Place } from '../../core/mail/place';
import { noAccount } from '../border/views';
import type { Overview, PostStatus } from '../border/overview';
import { doubtfulJunk } from './junkReport';
import type { MailState, Revised, Logged } from '../state/mailState';
import type { Keeping } from '../storage/stored';
import type { Importing } from '../storage/importing';
import { jobOf } from '../state/journalHead';
import { trayCounts, waitingCounts } from './trays';
import type { Viewing } from '../search/searching';
import { expunged } from '../state/internedTables';
import { stations } from '../../core/line/stations';

const inbox = { kind: 'place', place: 'inbox' } as const;

interface CutOff {
  readonly cutOff: Importing | null;
}

/** What came in of an import that was cut off. */
function cutOffOf({ cutOff, heads }: CutOff & Pick<Logged, 'heads'>): Overview['cutOff'] {
  if (!cutOff) return null;
  const { job, names, target } = cutOff;
  const added = heads.reduce((n, head) => (jobOf(head.command) === job ? n + head.count : n), 0);
  return { names, target, added };
}

/** The counts for the line. `dayStart`: when today began where the person is. */
export function overview(
  mailbox: MailState &
    Revised &
    Pick<Keeping, 'troubles'> &
    CutOff &
    Pick<Logged, 'heads'> & { readonly storage: Pick<StorageWatch, 'isLost' | 'isFull'> } & Viewing,
  post: PostStatus,
  dayStart: number,
): Overview {
  const { columns, tables, setup, views } = mailbox;
  const counts = views.counts();
  const places = new Set<Place>([...fixedPlaces, ...setup.folders.map((f): Place => `folder:${f.id}`)]);
  const labels = new Map(setup.labels.map(({ id }) => [id, { label: id, total: 0, unread: 0 }]));
  for (const [index, set] of tables.labelSets.items.entries())
    for (const label of set) {
      const its = labels.get(label);
      if (!its) continue;
      its.total += counts.labelSets[index];
      its.unread += counts.unreadLabelSets[index];
    }
  const today = new Map<string, number>();
  for (const id of views.since(dayStart)) {
    const last = tables.traces.items[columns.trace[id]]?.at(-1)?.station;
    if (columns.place[id] !== expunged && last) today.set(last, (today.get(last) ?? 0) + 1);
  }
  const indexOf = (place: Place) => tables.places.items.indexOf(place);
  return {
    revision: mailbox.revision,
    total: columns.count - counts.total[expunged],
    places: [...places].map((place) => ({
      place,
      total: counts.total[indexOf(place)] ?? 0,
      unread: counts.unread[indexOf(place)] ?? 0,
    })),
    labels: [...labels.values()],
    accounts: [...setup.accounts.map(({ id }) => id), noAccount].map((account) => ({
      account,
      ...views.countOf({ ...inbox, account }),
    })),
    damaged: views.list({ kind: 'damaged' }).length,
    silenced: views.heads({ kind: 'silenced' }).length,
    doubtful: doubtfulJunk(mailbox).length,
    trays: trayCounts(mailbox, mailbox.now()),
    waiting: waitingCounts(mailbox, mailbox.now()),
    stations: stations.map(({ id, name, page }) => ({ id, name, page, today: today.get(id) ?? 0 })),
    setup,
    post,
    lost: mailbox.storage.isLost,
    full: mailbox.storage.isFull,
    cutOff: cutOffOf(mailbox),
    troubles: [...mailbox.troubles],
  };
}
