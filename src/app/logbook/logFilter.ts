// What of the Logbook the address asks for.
import { endOfDay, startOfDay } from 'date-fns';
import { logKinds } from '../../core/line/logKinds';
import type { LogFilter } from '../../mailroom/border/log';

/** Whose entries, as the address has them and as the page calls them. */
export const whoNames = [
  ['you', 'You'],
  ['all', 'Everybody'],
  ['machine', 'Wide Sort'],
  ['post', 'Post office'],
] as const;
const whoOf: Record<string, LogFilter['who']> = { all: 'all', machine: 'Wide Sort', post: 'post office' };

/** A day in the address, as 2026-09-01; null where it is none. */
const readDay = (text: string | null): Date | null =>
  text !== null && /^\d{4}-\d\d-\d\d$/.test(text) && !Number.isNaN(Date.parse(text)) ? new Date(`${text}T00:00`) : null;

/** What the address asks for. An entry or a message is looked for among everybody's. */
export function readLogFilter(query: URLSearchParams): LogFilter {
  const [from, to] = [readDay(query.get('since')), readDay(query.get('until'))];
  const message = Number(query.get('message') ?? NaN);
  const asked = query.get('who') ?? (query.has('entry') || query.has('message') || query.has('by') ? 'all' : 'you');
  return {
    who: whoOf[asked] ?? 'you',
    what: logKinds.find((kind) => kind === query.get('what')) ?? null,
    since: from && startOfDay(from).getTime(),
    before: to && endOfDay(to).getTime() + 1,
    message: Number.isInteger(message) && message >= 0 ? message : null,
    decidedBy: query.get('by'),
    words: query.get('words') ?? '',
  };
}

/** Whose entries a filter shows, as the address has it. */
export const whoInAddress = (filter: LogFilter): string =>
  whoNames.find(([key]) => (whoOf[key] ?? 'you') === filter.who)?.[0] ?? 'you';

/** Whether a filter shows fewer than all of somebody’s entries. */
export const isNarrowed = ({ what, since, before, message, decidedBy, words }: LogFilter): boolean =>
  [what, since, before, message, decidedBy].some((its) => its !== null) || words !== '';
