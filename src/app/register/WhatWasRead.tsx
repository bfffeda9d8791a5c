import type { ReactNode } from 'react';
import { entryWords, type Entry } from '../../core/senders/register';
import { mostWrong, type CsvEntries, type Taking } from '../../core/senders/registerCsv';
import { count } from '../../core/text/sentences';

/** So many of the rows that are taken are listed; all are counted. */
const mostTaken = 500;

interface WhatWasReadProps {
  /** Nothing was given yet. */
  nothing: boolean;
  /** Why it could not be read. */
  error: string | null;
  /** It is still being read. */
  waiting: boolean;
  read: CsvEntries;
  /** What each of the entries does. */
  takings: readonly Taking[];
}

const does: Record<Taking, string> = { new: 'new', changes: 'changes an entry', same: 'there already' };

/** What was understood of several entries at once: the columns, each row that is taken, each that can’t be. */
export function WhatWasRead({ nothing, error, waiting, read, takings }: WhatWasReadProps) {
  const { entries, rows, wrong, wrongCount, head } = read;
  const many = (taking: Taking) => count(takings.filter((one) => one === taking).length);
  return (
    <section aria-label="What was read">
      <h2 className="text-lg font-semibold">What was read</h2>
      {nothing ? (
        <p className="quiet">Nothing yet.</p>
      ) : error !== null ? (
        <p role="alert">It could not be read: {error}</p>
      ) : waiting ? (
        <p role="status">Reading …</p>
      ) : (
        <p role="status">
          {many('new')} new, {many('changes')} that change an entry, {many('same')} there already,{' '}
          <strong className={wrongCount ? 'text-accent' : ''}>{count(wrongCount)} that can’t be taken</strong>.
        </p>
      )}
      {head && <HeadWords head={head} />}
      <Rows
        name="Rows that can’t be taken"
        columns={['Row', 'What stands there', 'Why not']}
        all={wrongCount}
        most={mostWrong}
      >
        {wrong.map(({ row, text, reason }) => (
          <tr key={row}>
            <td className="tabular-nums">{row}</td>
            <td className="max-w-56 truncate font-mono" title={text}>
              {text}
            </td>
            <td>{reason}</td>
          </tr>
        ))}
      </Rows>
      <Rows name="Rows that are taken" columns={['Row', 'Entry', 'Why', 'It is']} all={entries.length} most={mostTaken}>
        {entries.slice(0, mostTaken).map((entry, at) => (
          <tr key={rows[at]}>
            <td className="tabular-nums">{rows[at]}</td>
            <td className="[overflow-wrap:anywhere]">{rowWords(entry)}</td>
            <td className="max-w-40 truncate" title={entry.why}>
              {entry.why}
            </td>
            <td className="whitespace-nowrap">{does[takings[at]]}</td>
          </tr>
        ))}
      </Rows>
    </section>
  );
}

const rowWords = (entry: Omit<Entry, 'id'>) =>
  `${entry.standing === 'blocked' ? 'Blocked' : 'Safe'}: ${entryWords(entry)}`;

/** That the first row named the columns, and which of them nothing is taken from. */
function HeadWords({ head: { known, unknown } }: { head: NonNullable<CsvEntries['head']> }) {
  return (
    <p className="text-sm">
      The first row names the columns: {known.join(', ')}.
      {unknown.length > 0 && (
        <strong> Not understood, and left out: {unknown.map((name) => `“${name}”`).join(', ')}.</strong>
      )}
    </p>
  );
}

interface RowsProps {
  name: string;
  columns: string[];
  all: number;
  most: number;
  children: ReactNode;
}

function Rows({ name, columns, all, most, children }: RowsProps) {
  if (all === 0) return null;
  return (
    <>
      <div className="mt-2 max-h-64 overflow-auto" tabIndex={0} role="region" aria-label={name}>
        <table className="table table-sm">
          <thead>
            <tr>
              {columns.map((column) => (
                <th key={column}>{column}</th>
              ))}
            </tr>
          </thead>
          <tbody>{children}</tbody>
        </table>
      </div>
      {all > most && (
        <p className="quiet text-sm">
          {name}: the first {count(most)} of {count(all)}.
        </p>
      )}
    </>
  );
}
