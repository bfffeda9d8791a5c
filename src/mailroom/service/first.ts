// What the page asks before anything else: the rows, the counts, and whether there is a mailbox at all.
import type { Mailroom } from '../border/mailroom';
import { groupingSchema, viewSchema } from '../border/views';
import { overview } from '../questions/overview';
import { rows } from '../questions/rows';
import type { Open, ServiceHost } from './host';
import type { PostStanding } from './postStanding';

function dayStart(now: number): number {
  const day = new Date(now);
  day.setHours(0, 0, 0, 0);
  return day.getTime();
}

/** The questions that are answered before the rest is loaded. */
export function firstOf(open: Open, host: Pick<ServiceHost, 'clock'>, standing: PostStanding) {
  return {
    rows: (view, grouping, from, to) =>
      rows(open.mailbox, viewSchema.parse(view), groupingSchema.parse(grouping), from, to),
    overview: async () => overview(open.mailbox, standing.status(), dayStart(host.clock.now())),
    begun: async () => open.mailbox.seq > 0 || open.mailbox.columns.count > 0,
  } satisfies Partial<Mailroom>;
}
