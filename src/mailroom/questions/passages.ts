// Passages: where in a message's text stands what was searched for, for its row.
import { keepNewest } from '../../core/data/memo';
import { marksIn, soughtIn } from '../../core/search/marks';
import { parseQuery } from '../../core/search/query';
import type { MailState } from '../state/mailState';
import type { Readable } from '../reading/reader';
import type { Stored } from '../storage/stored';

const mostKept = 2_000;

const kept = new WeakMap<object, Map<string, string | null>>();

/**
 * For each message the passage in which stands what a query looks for in texts; null where its preview shows it already,
 * where the query looks for nothing in texts, or where it stands elsewhere than in the text.
 */
export async function passages(
  mailbox: Pick<MailState, 'columns'> & Stored & Readable,
  query: string,
  ids: readonly number[],
): Promise<(string | null)[]> {
  const parsed = parseQuery(query);
  const sought = parsed.ok ? soughtIn('text', parsed.query) : [];
  if (sought.length === 0) return ids.map(() => null);
  const { envelopes, columns, reader } = mailbox;
  await envelopes.ensure(ids, columns.count);
  const own = kept.get(mailbox) ?? new Map<string, string | null>();
  kept.set(mailbox, own);
  const out: (string | null)[] = [];
  for (const id of ids) {
    // By what the message is, not by its number: one that could not be written leaves its number to another.
    const key = `${envelopes.get(id).key} ${sought.join('\n')}`;
    let passage = own.get(key);
    if (passage === undefined) {
      passage = null;
      if (marksIn(envelopes.get(id).preview, sought).length === 0) {
        passage = await reader.one(id, 'passage', sought);
      }
    }
    keepNewest(own, key, passage, mostKept);
    out.push(passage);
  }
  return out;
}
