import { bothForms } from '../../core/senders/normal';
import { ArrowDown, ArrowUp, Check } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import {
  type SenderLine,
  type SenderOrder,
  type SendersQuestion,
  type SenderWindow,
  senderOrders,
  senderSorts,
} from '../../mailroom/border/senderTable';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { useMailbox } from '../state/overview';
import { Page } from '../ui/Page';
import { dayOf, sizeWords } from '../../core/text/time';
import { useTallList } from '../ui/tallList';
import { useAnswer } from '../ui/useAnswer';
import { count, messages } from '../../core/text/sentences';
import { Waiting } from '../ui/Waiting';
import { SenderPanel } from './SenderPanel';
import { Weeks } from './Weeks';

const orderNames: Record<SenderOrder, string> = {
  name: 'Sender',
  messages: 'Messages',
  inbox: 'In the Inbox',
  unread: 'Unread',
  last: 'Last seen',
  answered: 'You wrote',
  size: 'Size',
  trend: '12 weeks',
};

const sortNames: Record<SendersQuestion['only'], string> = {
  all: 'All',
  lists: 'Lists',
  written: 'You wrote to',
  never: 'Never answered',
  quiet: 'Never read',
};

const rowHeight = 44;
const pageSize = 60;
const narrowGrid = 'grid grid-cols-[minmax(0,1fr)_4.5rem] gap-x-3 sm:grid-cols-[minmax(11rem,1fr)_4.5rem_4rem_5rem]';
/** All columns fit beside a sender that is looked at only on a wide screen. */
const grids = {
  whole: `${narrowGrid} xl:grid-cols-[minmax(11rem,1fr)_5rem_5.5rem_4rem_6rem_5rem_5rem_6.5rem]`,
  beside: `${narrowGrid} 2xl:grid-cols-[minmax(11rem,1fr)_5rem_5.5rem_4rem_6rem_5rem_5rem_6.5rem]`,
};
const always: ReadonlySet<SenderOrder> = new Set(['name', 'messages']);
const soon: ReadonlySet<SenderOrder> = new Set(['unread', 'trend']);
/** From which width a column is shown. */
const shownFrom = (column: SenderOrder, beside: boolean): string =>
  always.has(column) ? '' : soon.has(column) ? 'max-sm:hidden' : beside ? 'max-2xl:hidden' : 'max-xl:hidden';

/** A stretch of the table around the first line in sight. */
function useLines(question: SendersQuestion, first: number): SenderWindow | null {
  const revision = useMailbox((s) => s.revision);
  const from = Math.max(0, Math.floor(first / pageSize) * pageSize - pageSize);
  return useAnswer(
    () => mailroom.senders(question, from, from + 3 * pageSize),
    `${JSON.stringify(question)} ${from} ${revision}`,
  ).value;
}

interface LineProps {
  line: SenderLine;
  chosen: boolean;
  /** A sender is looked at beside the table. */
  beside: boolean;
  onPick: () => void;
}

function Line({ line, chosen, beside, onPick }: LineProps) {
  const { sender, name, messages: n } = line;
  const title = sender.by === 'address' ? name || bothForms(sender.value) : bothForms(sender.value);
  const below =
    sender.by === 'address'
      ? bothForms(sender.value)
      : `${count(line.addresses)} ${line.addresses === 1 ? 'address' : 'addresses'}`;
  const share = Math.round((100 * line.unread) / n);
  return (
    <div
      role="row"
      aria-selected={chosen}
      className={`${beside ? grids.beside : grids.whole} h-full cursor-pointer items-center border-b border-base-300 px-2 text-sm ${chosen ? 'bg-base-300' : 'hover:bg-base-200'}`}
      onClick={onPick}
    >
      <span role="gridcell" className="min-w-0">
        <button className="block min-h-6 max-w-full truncate text-left font-semibold" title={sender.value}>
          {title}
        </button>
        <span className="quiet block truncate text-xs">
          {line.left && 'left · '}
          {line.list && 'list · '}
          <span className="font-mono">{below}</span>
        </span>
      </span>
      <span role="gridcell" className="text-right tabular-nums">
        {count(n)}
      </span>
      <span role="gridcell" className={`text-right tabular-nums ${shownFrom('inbox', beside)}`}>
        {count(line.inbox)}
      </span>
      <span
        role="gridcell"
        className={`text-right tabular-nums ${shownFrom('unread', beside)}`}
        title={`${count(line.unread)} unread`}
      >
        {share} %
      </span>
      <span role="gridcell" className={`text-right tabular-nums ${shownFrom('last', beside)}`}>
        {dayOf(line.last)}
      </span>
      <span role="gridcell" className={`text-right ${shownFrom('answered', beside)}`}>
        {line.answered > 0 ? (
          `${count(line.answered)} times`
        ) : line.written ? (
          <Check size={15} className="ml-auto" aria-label="you wrote to it" />
        ) : (
          <span className="quiet">never</span>
        )}
      </span>
      <span role="gridcell" className={`text-right tabular-nums ${shownFrom('size', beside)}`}>
        {sizeWords(line.bytes)}
      </span>
      <span role="gridcell" className={shownFrom('trend', beside)}>
        <Weeks weeks={line.weeks} />
      </span>
    </div>
  );
}

interface TableHeadProps {
  order: SenderOrder;
  turned: boolean;
  beside: boolean;
  onSort: (by: SenderOrder) => void;
}

function TableHead({ order, turned, beside, onSort }: TableHeadProps) {
  return (
    <div
      role="row"
      aria-rowindex={1}
      className={`${beside ? grids.beside : grids.whole} border-b-2 border-base-300 px-2 py-1 text-xs font-semibold`}
    >
      {senderOrders.map((one) => (
        <span
          key={one}
          role="columnheader"
          aria-sort={order !== one ? 'none' : turned === (one === 'name') ? 'descending' : 'ascending'}
          className={`${shownFrom(one, beside)} ${one === 'name' ? '' : 'text-right'}`}
        >
          <button className="inline-flex min-h-6 items-center gap-1 whitespace-nowrap" onClick={() => onSort(one)}>
            {orderNames[one]}
            {order === one && (turned === (one === 'name') ? <ArrowDown size={12} /> : <ArrowUp size={12} />)}
          </button>
        </span>
      ))}
    </div>
  );
}

interface TableBodyProps {
  /** The stretch that is here. */
  window: SenderWindow | null;
  /** Told the first line in sight. */
  onFirst: (first: number) => void;
  chosen: string | null;
  onPick: (sender: string) => void;
}

/** The lines: only those in sight are in the page. */
function TableBody({ window, onFirst, chosen, onPick }: TableBodyProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const list = useTallList(scroller, window?.total ?? 0, rowHeight);
  const top = list.rows[0]?.index ?? 0;
  useEffect(() => onFirst(top), [top, onFirst]);
  const lineAt = (index: number) => window?.lines[index - window.from];
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto" role="presentation">
      <div role="rowgroup" style={{ height: list.height, position: 'relative' }}>
        {list.rows.map(({ index, start }) => {
          const line = lineAt(index);
          return (
            <div
              key={index}
              role="presentation"
              style={{ position: 'absolute', insetInline: 0, height: rowHeight, top: start + list.shift }}
            >
              {line && (
                <Line
                  line={line}
                  chosen={chosen === line.sender.value}
                  beside={chosen !== null}
                  onPick={() => onPick(line.sender.value)}
                />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

interface BarProps extends Pick<SendersQuestion, 'by' | 'only' | 'words'> {
  window: SenderWindow | null;
  /** Writes some of the question into the address; null takes it out. */
  set: (some: Record<string, string | null>) => void;
}

/** Which senders are shown, and how many that are. */
function Bar({ by, only, words, window, set }: BarProps) {
  const total = window?.total ?? 0;
  const select = (key: string, name: string, value: string, options: readonly (readonly [string, string])[]) => (
    <div className="join max-w-full overflow-x-auto" role="group" aria-label={name}>
      {options.map(([option, word]) => (
        <button
          key={option}
          className={`btn join-item font-normal btn-sm ${value === option ? 'btn-primary' : 'btn-outline border-base-300'}`}
          aria-pressed={value === option}
          onClick={() => set({ [key]: option })}
        >
          {word}
        </button>
      ))}
    </div>
  );
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-base-300 px-4 py-2">
      {select('by', 'By', by, [
        ['address', 'Senders'],
        ['domain', 'Domains'],
      ])}
      {select(
        'only',
        'Which',
        only,
        senderSorts.map((one) => [one, sortNames[one]] as const),
      )}
      <input
        className="input input-sm w-44"
        aria-label="Name or address"
        placeholder="Name or address"
        spellCheck={false}
        value={words}
        onChange={(event) => set({ words: event.target.value || null })}
      />
      <div className="quiet text-sm">
        <Waiting
          says="Counting …"
          answer={
            window &&
            `${count(total)} ${by === 'domain' ? (total === 1 ? 'domain' : 'domains') : total === 1 ? 'sender' : 'senders'} · ${messages(window.messages)}`
          }
        />
        {window && only === 'all' && words === '' && <NotCounted {...window.notCounted} />}
      </div>
    </div>
  );
}

/** Why the messages of all senders are not all messages. */
function NotCounted({ own, elsewhere, nameless }: SenderWindow['notCounted']) {
  const parts = [
    own > 0 && `${count(own)} your own`,
    elsewhere > 0 && `${count(elsewhere)} in Junk, the Bin or Drafts`,
    nameless > 0 && `${count(nameless)} without a sender`,
  ].filter(Boolean);
  return parts.length > 0 && <p>Not counted: {parts.join(', ')}.</p>;
}

/** Senders: who writes how much, what becomes of it, and what can be done with all of it at once. */
export function SendersPage() {
  const overview = useMailbox((s) => s.overview);
  const [query, setQuery] = useSearchParams();
  const order = senderOrders.find((one) => one === query.get('order')) ?? 'messages';
  const only = senderSorts.find((one) => one === query.get('only')) ?? 'all';
  const by = query.get('by') === 'domain' ? 'domain' : 'address';
  const turned = query.has('turned');
  const words = query.get('words') ?? '';
  const chosen = query.get('sender');
  const set = (some: Record<string, string | null>) => {
    const next = new URLSearchParams(query);
    for (const [key, value] of Object.entries(some)) {
      if (value === null) next.delete(key);
      else next.set(key, value);
    }
    // What is typed is shown at once, not when the page has time.
    setQuery(next, { replace: !('sender' in some), flushSync: true });
  };
  const [first, setFirst] = useState(0);
  const window = useLines({ by, only, words, order, turned }, first);
  const total = window?.total ?? 0;
  if (!overview) return null;
  const sort = (one: SenderOrder) => set({ order: one, turned: order === one && !turned ? '' : null });
  return (
    <Page title="Senders" acts={<UndoSpot />} whole>
      <div className="flex min-h-0 flex-1">
        <section
          aria-label="All senders"
          className={`flex min-h-0 min-w-0 flex-1 flex-col ${chosen ? 'max-lg:hidden' : ''}`}
        >
          <Bar by={by} only={only} words={words} window={window} set={set} />
          {window && total === 0 ? (
            <p className="p-4">
              {overview.total === 0
                ? 'There is no mail here yet: bring some in, and who wrote it stands here.'
                : 'No sender is of that kind.'}
            </p>
          ) : (
            <div
              role="grid"
              aria-label="Senders"
              aria-rowcount={total + 1}
              className="flex min-h-0 flex-1 flex-col px-2"
            >
              <TableHead order={order} turned={turned} beside={chosen !== null} onSort={sort} />
              <TableBody window={window} onFirst={setFirst} chosen={chosen} onPick={(sender) => set({ sender })} />
            </div>
          )}
        </section>
        {chosen ? (
          <SenderPanel
            key={`${by} ${chosen}`}
            sender={{ by, value: chosen }}
            setup={overview.setup}
            onClose={() => set({ sender: null })}
          />
        ) : (
          <aside className="quiet hidden w-[26rem] shrink-0 border-l border-base-300 p-6 2xl:block">
            <p>Press a sender to see what it sends, and to act on all of it at once.</p>
            <p className="mt-2 text-sm">Counted is what is neither in Junk nor in the Bin, and not your own.</p>
          </aside>
        )}
      </div>
    </Page>
  );
}
