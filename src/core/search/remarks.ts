// What is to be said of a query that can be read, but hardly asks for what was meant.
import { namesApart, pathsOf, type Nested } from '../mail/nesting';
import { foldSearch } from '../text/fold';
import { keyWords, tokens } from './query';

/** Something to be said of a query, and the place of which it is said, in UTF-16 units. */
export interface QueryRemark {
  at: number;
  says: string;
}

/** So many labels are named to whoever asks for one that isn't there. */
const mostNamed = 4;

/** Keys with a colon, which are looked for as they stand, and labels that aren't there. `labels`: those that are. */
export function queryRemarks(text: string, nested: readonly Nested[]): QueryRemark[] {
  const out: QueryRemark[] = [];
  const path = pathsOf(nested);
  const apart = namesApart(nested);
  const labels = nested.map(({ id }) => apart(id));
  const list = tokens(text, true);
  for (const [n, { text: word, quoted, at }] of list.entries()) {
    if (quoted) continue;
    const colon = /^([a-z]+):(.*)$/i.exec(word);
    if (colon && keyWords.includes(colon[1].toLowerCase()))
      out.push({
        at,
        says: `“${word}” is looked for as it stands. A key stands before a blank: ${colon[1]} ${colon[2] || '…'}`,
      });
    const label = list.at(n + 1);
    if (!/^(un)?keyword$/i.test(word) || !label) continue;
    const wanted = foldSearch(label.text);
    const named = nested.filter(({ id, name }) => [name, path(id)].some((its) => foldSearch(its) === wanted));
    if (named.length === 0) out.push({ at: label.at, says: `There is no label “${label.text}”${namedOf(labels)}.` });
    if (named.length > 1) {
      const which = named.map(({ id }) => `“${path(id)}”`).join(' and ');
      out.push({
        at: label.at,
        says: `${named.length} labels are called “${label.text}”, and all of them count: ${which}.`,
      });
    }
  }
  return out;
}

const namedOf = (labels: readonly string[]): string =>
  labels.length === 0
    ? ', nor any other'
    : `: ${labels.slice(0, mostNamed).join(', ')}${labels.length > mostNamed ? ' and others' : ''} are there`;
