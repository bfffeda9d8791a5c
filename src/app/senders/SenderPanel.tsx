import { bothForms } from '../../core/senders/normal';
import { Filter, GalleryVerticalEnd, Search, ShieldCheck, ShieldX, X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { everythingGoes } from '../../core/clearout/clearOut';
import type { Setup } from '../../core/line/setup';
import type { Entry, Standing } from '../../core/senders/register';
import { quoted } from '../../core/search/query';
import { mailroom } from '../../mailroom/client';
import type { Sender, SenderReport } from '../../mailroom/border/senderTable';
import type { View } from '../../mailroom/border/views';
import { wholeActs } from '../clearout/clearOutActs';
import { clearOutPath } from '../clearout/clearOutLink';
import { viewPath } from '../paths';
import { runAct } from '../state/desk';
import { useMailbox } from '../state/overview';
import { RowLines } from '../ui/RowLines';
import { dayOf, exactTime, sizeWords } from '../../core/text/time';
import { useAnswer } from '../ui/useAnswer';
import { count, messages } from '../../core/text/sentences';
import { usePart } from '../ui/usePart';
import { Waiting } from '../ui/Waiting';
import { LeaveList } from './LeaveList';
import { MonthsChart } from './MonthsChart';

const trayPart = () => import('../trays/PutInTrayDialog');

/** Places whose mail of a sender can be acted on at once. */
const scopes: { id: string; name: string; of: View | null }[] = [
  { id: 'inbox', name: 'in the Inbox', of: { kind: 'place', place: 'inbox' } },
  { id: 'all', name: 'in all places but Junk, Bin, Sent and Drafts', of: null },
];

function Figures({ report }: { report: SenderReport }) {
  const { line } = report;
  const figures: [string, string][] = [
    ['Messages', `${count(line.messages)}, ${count(line.inbox)} in the Inbox`],
    ['Unread', `${count(line.unread)} (${Math.round((100 * line.unread) / line.messages)} %)`],
    ['Last seen', exactTime(line.last)],
    ['Size', sizeWords(line.bytes)],
    [
      'You',
      line.answered > 0
        ? `answered ${messages(line.answered)}`
        : line.written
          ? 'wrote to it, but answered none'
          : 'never wrote to it',
    ],
  ];
  return (
    <dl className="grid grid-cols-[6rem_1fr] gap-x-3 gap-y-0.5 text-sm">
      {figures.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="quiet">{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

interface PartProps {
  sender: Sender;
  report: SenderReport;
}

/** Acts on all of it, in one place or everywhere. */
function AllAtOnce({ sender, report }: PartProps) {
  const revision = useMailbox((s) => s.revision);
  const [scope, setScope] = useState('all');
  const of = scopes.find(({ id }) => id === scope)?.of ?? null;
  const choice = { ...everythingGoes, from: sender };
  const { value: touched } = useAnswer(
    () => mailroom.clearOutReport(`sender ${sender.value}`, choice, of),
    `${JSON.stringify([sender, of])} ${revision}`,
    0,
    JSON.stringify([sender, of]),
  );
  const found: View = { kind: 'found', query: `from ${quoted(sender.value)}`, within: null };
  return (
    <section aria-label="All of it at once">
      <h3 className="mb-1 font-semibold">All of it at once</h3>
      <label className="mb-2 flex flex-col text-sm">
        What is
        <select className="select w-full select-sm" value={scope} onChange={(event) => setScope(event.target.value)}>
          {scopes.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <div className="flex flex-wrap gap-2">
        {wholeActs.map(({ word, icon: Icon, act, reach }) => {
          const n = touched ? reach(touched) : 0;
          return (
            <button
              key={word}
              className="btn gap-1 btn-sm"
              disabled={n === 0}
              onClick={() => void runAct({ clearOut: choice, of }, act)}
            >
              <Icon size={15} aria-hidden /> {word} {touched ? count(n) : '…'}
            </button>
          );
        })}
      </div>
      <div className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-sm">
        <Link className="link inline-flex min-h-6 items-center gap-1" to={clearOutPath({ of, choice })}>
          Choose more exactly
        </Link>
        <Link className="link inline-flex min-h-6 items-center gap-1" to={viewPath(found)}>
          <Search size={14} aria-hidden /> Find them
        </Link>
        {report.latest[0] && (
          <Link className="link inline-flex min-h-6 items-center gap-1" to={`/rules/new?from=${report.latest[0].id}`}>
            <Filter size={14} aria-hidden /> A rule for them
          </Link>
        )}
      </div>
    </section>
  );
}

/** What can be decided for its mail to come. */
function FromNowOn({ sender, report, standing, setup }: PartProps & { standing: Entry | undefined; setup: Setup }) {
  const [putting, setPutting] = useState(false);
  const Tray = usePart(trayPart, putting)?.PutInTrayDialog;
  // An entry is looked at, with what it would do to the mail here, before it is saved.
  const entryPath = (as: Standing) =>
    standing
      ? `/register/${encodeURIComponent(standing.id)}`
      : `/register/new?value=${encodeURIComponent(sender.value)}&standing=${as}`;
  return (
    <section aria-label="From now on">
      <h3 className="mb-1 font-semibold">From now on</h3>
      <div className="flex flex-wrap gap-2">
        {standing?.standing !== 'safe' && (
          <Link className="btn gap-1 btn-sm" to={entryPath('safe')}>
            <ShieldCheck size={15} aria-hidden /> Safe …
          </Link>
        )}
        {standing?.standing !== 'blocked' && (
          <Link className="btn gap-1 btn-sm" to={entryPath('blocked')}>
            <ShieldX size={15} aria-hidden /> Block …
          </Link>
        )}
        {report.line.inbox > 0 ? (
          <button className="btn gap-1 btn-sm" onClick={() => setPutting(true)}>
            <GalleryVerticalEnd size={15} aria-hidden /> Put in a tray …
          </button>
        ) : (
          <Link
            className="btn gap-1 btn-sm"
            to={`/trays/new?${new URLSearchParams({ by: sender.by, of: sender.value }).toString()}`}
          >
            <GalleryVerticalEnd size={15} aria-hidden /> A tray for them …
          </Link>
        )}
      </div>
      <LeaveList report={report} />
      {putting && Tray && (
        <Tray
          selection={{ clearOut: { ...everythingGoes, from: sender }, of: { kind: 'place', place: 'inbox' } }}
          count={report.line.inbox}
          setup={setup}
          onClose={() => setPutting(false)}
          onPut={(put) => void put()}
        />
      )}
    </section>
  );
}

/** All of one sender: figures, the months, its latest messages, and acts for the whole of it. */
export function SenderPanel({ sender, setup, onClose }: { sender: Sender; setup: Setup; onClose: () => void }) {
  const revision = useMailbox((s) => s.revision);
  const { value: report, waiting } = useAnswer(() => mailroom.sender(sender), `${JSON.stringify(sender)} ${revision}`);
  const standing = setup.register.find((entry) => entry.kind === sender.by && entry.value === sender.value);
  const title = report?.line.name && sender.by === 'address' ? report.line.name : bothForms(sender.value);
  return (
    <aside
      aria-label={`Sender ${sender.value}`}
      className="flex min-h-0 w-full shrink-0 flex-col gap-4 overflow-y-auto border-l border-base-300 p-4 lg:w-[26rem]"
    >
      <div className="flex items-start gap-2">
        <div className="min-w-0 flex-1">
          <h2 className="text-lg leading-snug font-semibold [overflow-wrap:anywhere]">{title}</h2>
          {title !== bothForms(sender.value) && (
            <p className="font-mono text-sm [overflow-wrap:anywhere]">{bothForms(sender.value)}</p>
          )}
          {standing && (
            <p className="text-sm">
              {standing.standing === 'safe' ? 'Safe' : 'Blocked'} since {dayOf(standing.since)}:{' '}
              <Link className="link" to={`/register/${encodeURIComponent(standing.id)}`}>
                its entry
              </Link>
            </p>
          )}
        </div>
        <button className="btn btn-square btn-ghost btn-sm" aria-label="Close the sender" onClick={onClose}>
          <X size={16} />
        </button>
      </div>
      {!report &&
        (waiting ? (
          <Waiting says="Counting …" />
        ) : (
          <p className="quiet">Nothing of this sender is left in any place but Junk and the Bin.</p>
        ))}
      {report && (
        <>
          <Figures report={report} />
          <MonthsChart months={report.months} />
          <AllAtOnce sender={sender} report={report} />
          <FromNowOn sender={sender} standing={standing} report={report} setup={setup} />
          <section aria-label="The latest">
            <h3 className="mb-1 font-semibold">The latest</h3>
            <RowLines rows={report.latest} setup={setup} label="Its latest messages" narrow />
          </section>
        </>
      )}
    </aside>
  );
}
