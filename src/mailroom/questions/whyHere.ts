// “Why here”: what decided where a message is, and every move since.
import type { WhyLine } from '../border/message';
import type { JournalHead } from '../state/journalHead';
import { includes, settingOf } from './logbook';
import type { MailState, Loading, Logged } from '../state/mailState';
import { traceNames } from '../../core/line/stations';

/** The answer to “Why here”, in the order in which it was decided, then every move since. */
export async function whyHere(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'setup'> & Pick<Loading, 'journalReady'> & Pick<Logged, 'heads'>,
  id: number,
): Promise<WhyLine[]> {
  await mailbox.journalReady();
  const { columns, tables, heads } = mailbox;
  if (id < 0 || id >= columns.count) return [];
  const arrival = heads.find((h) => h.added && h.ids && includes(h.ids, id));
  const lines: WhyLine[] = (tables.traces.items[columns.trace[id]] ?? []).map((line) => ({
    at: null,
    who: traceNames[line.station],
    says: line.says,
    setting: settingOf(mailbox, line.by),
    seq: null,
  }));
  const entry = (head: JournalHead): WhyLine => ({
    at: head.at,
    who: head.by === 'you' ? 'You' : head.by,
    says: `${head.says}.`,
    setting: null,
    seq: head.seq,
  });
  for (const head of heads)
    if (head !== arrival && head.moved && head.ids && includes(head.ids, id)) lines.push(entry(head));
  return lines;
}
