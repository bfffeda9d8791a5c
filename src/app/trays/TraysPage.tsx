import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { roundWords } from '../../core/delivery/rounds';
import type { Tray } from '../../core/delivery/tray';
import type { Setup } from '../../core/line/setup';
import { groupWords } from '../../core/rules/ruleWords';
import { count, messages } from '../../core/text/sentences';
import { dueWords } from '../../core/text/time';
import type { TrayCounts } from '../../mailroom/border/trays';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { viewPath } from '../paths';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { labelName } from '../ui/naming';
import { Dialog } from '../ui/Dialog';
import { Page } from '../ui/Page';
import { MoveButtons } from '../ui/Sortable';
import { useNow } from '../ui/useNow';

/** What a tray gathers, in words. */
function gathersWords({ when, labels }: Tray, setup: Setup): string {
  const parts = [
    ...(when ? [groupWords(when, setup)] : []),
    ...labels.map((label) => `labelled ${labelName(label, setup)}`),
  ];
  return parts.length ? parts.join(', or ') : 'Only what is put in it by hand or by a rule';
}

/** What becomes of a tray’s mail when it goes? */
function DissolveTray({ tray, setup, onClose }: { tray: Tray; setup: Setup; onClose: () => void }) {
  const [into, setInto] = useState('');
  const counts = useMailbox((s) => s.overview?.trays.find((one) => one.tray === tray.id));
  const others = setup.trays.filter(({ id }) => id !== tray.id);
  const rules = setup.rules.filter(({ then }) => then.some((act) => act.do === 'tray' && act.tray === tray.id)).length;
  const go = async () => {
    if (tellOutcome(await mailroom.dissolve(commandId(), { of: 'tray', id: tray.id, into: into || null }))) onClose();
  };
  return (
    <Dialog title={`Dissolve the tray ${tray.name}`} onClose={onClose}>
      <div className="flex flex-col gap-3">
        <p>
          {messages(counts?.waits ?? 0)} wait in it, {count(counts?.here ?? 0)} of it are in the Inbox. No message is
          deleted.
        </p>
        <label className="flex flex-col gap-1">
          Its mail goes
          <select className="select w-full" value={into} onChange={(event) => setInto(event.target.value)}>
            <option value="">to the Inbox, at once</option>
            {others.map(({ id, name }) => (
              <option key={id} value={id}>
                into {name}
              </option>
            ))}
          </select>
        </label>
        {rules > 0 && (
          <p className="border-l-4 border-accent bg-base-200 px-3 py-1 text-sm">
            {rules === 1 ? 'One rule speaks of it' : `${count(rules)} rules speak of it`}, and{' '}
            {into ? 'will put mail into the other.' : 'will no longer put mail into it.'}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <button className="btn btn-ghost" onClick={onClose}>
            Cancel
          </button>
          <button className="btn btn-primary" onClick={() => void go()}>
            Dissolve it
          </button>
        </div>
      </div>
    </Dialog>
  );
}

interface TrayItemProps {
  tray: Tray;
  at: number;
  setup: Setup;
  counts: TrayCounts | undefined;
  onMove: (to: number) => void;
  onDissolve: () => void;
}

function TrayItem({ tray, at, setup, counts, onMove, onDissolve }: TrayItemProps) {
  const now = useNow(30_000);
  const view = (place: 'inbox' | 'held') => viewPath({ kind: 'place', place, tray: tray.id });
  return (
    <li className="flex flex-wrap items-start gap-x-3 gap-y-1 rounded-box border border-base-300 bg-base-100 px-3 py-2">
      <span className="quiet w-5 pt-0.5 text-right tabular-nums">{at + 1}</span>
      <div className="min-w-52 flex-1">
        <Link className="link font-semibold" to={`/trays/${encodeURIComponent(tray.id)}`}>
          {tray.name}
        </Link>
        <p className="text-sm [overflow-wrap:anywhere]">{gathersWords(tray, setup)}.</p>
        <p className="text-sm">
          Delivered {roundWords(tray.round)}
          {counts && counts.next !== null && `; next ${dueWords(counts.next, now)}`}.
        </p>
        {counts && (
          <p className="quiet flex flex-wrap gap-x-3 text-sm">
            <Link className="link" to={view('held')}>
              {count(counts.waits)} wait{counts.waits === 1 ? 's' : ''}
            </Link>
            <Link className="link" to={view('inbox')}>
              {count(counts.here)} in the Inbox, {count(counts.unread)} unread
            </Link>
          </p>
        )}
      </div>
      <div className="ml-auto flex items-center">
        <MoveButtons name={tray.name} at={at} of={setup.trays.length} onMove={onMove} />
        <button className="btn btn-ghost btn-xs" aria-label={`Dissolve “${tray.name}”`} onClick={onDissolve}>
          Dissolve
        </button>
      </div>
    </li>
  );
}

/** The trays in the order in which they gather. */
export function TraysPage() {
  const overview = useMailbox((s) => s.overview);
  const [dissolving, setDissolving] = useState<Tray | null>(null);
  if (!overview) return null;
  const { setup, trays } = overview;
  const move = async (tray: Tray, at: number) =>
    tellOutcome(
      await mailroom.editSetup(
        commandId(),
        [{ list: 'trays', id: tray.id, item: tray, at }],
        `Moved the tray “${tray.name}”`,
        false,
      ),
    );
  return (
    <Page
      title="Trays"
      acts={
        <>
          <UndoSpot />
          <Link className="btn btn-primary btn-sm" to="/trays/new">
            <Plus size={16} aria-hidden /> New tray
          </Link>
        </>
      }
    >
      <div className="flex max-w-4xl flex-col gap-3">
        {setup.trays.length === 0 ? (
          <>
            <p className="max-w-prose">
              Much of what comes is good to read and never urgent: bulletins, notices, statistics. A tray gathers such
              mail and brings it at an hour of your choice, as one row of the Inbox.
            </p>
            <p className="max-w-prose">
              Open a message and press <strong>Tray</strong>, or make a{' '}
              <Link className="link" to="/trays/new">
                new tray
              </Link>
              .
            </p>
          </>
        ) : (
          <>
            <p className="max-w-prose text-sm">
              The first tray that means a message gathers it; rules come before them.
            </p>
            <ol className="flex flex-col gap-2" aria-label="Trays in their order">
              {setup.trays.map((tray, at) => (
                <TrayItem
                  key={tray.id}
                  tray={tray}
                  at={at}
                  setup={setup}
                  counts={trays.find((one) => one.tray === tray.id)}
                  onMove={(to) => void move(tray, to)}
                  onDissolve={() => setDissolving(tray)}
                />
              ))}
            </ol>
          </>
        )}
      </div>
      {dissolving && <DissolveTray tray={dissolving} setup={setup} onClose={() => setDissolving(null)} />}
    </Page>
  );
}
