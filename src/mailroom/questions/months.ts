// A view by years and months: where each month begins among its rows, so that one can jump there.
import type { Viewing } from '../search/searching';
import { monthOf } from './senders';
import type { Grouping, View } from '../border/views';
import type { Month } from '../border/months';

/** The months of a view that have rows, the newest first. */
export async function months(mailbox: Viewing, view: View, { grouped }: Grouping): Promise<Month[]> {
  await mailbox.views.ready(view);
  const { views } = mailbox;
  const timeOf = views.timeIn(view);
  const list = grouped ? views.heads(view) : views.list(view);
  const out: Month[] = [];
  // Rows are in the order of their times: the end of each month is found by halving.
  for (let at = 0; at < list.length;) {
    const date = new Date(timeOf(list[at]));
    const begins = new Date(date.getFullYear(), date.getMonth(), 1).getTime();
    let [low, high] = [at + 1, list.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (timeOf(list[middle]) >= begins) low = middle + 1;
      else high = middle;
    }
    out.push({ month: monthOf(date), first: at, rows: low - at });
    at = low;
  }
  return out;
}
