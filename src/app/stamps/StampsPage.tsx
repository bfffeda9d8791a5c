import { Download, FileUp, Plus } from 'lucide-react';
import { useRef } from 'react';
import { Link } from 'react-router';
import type { Setup } from '../../core/line/setup';
import type { SetupEdit } from '../../core/line/setupEdit';
import { ruleName } from '../../core/rules/ruleWords';
import { rulesRunning } from '../../core/rules/stampsRun';
import { readyStamps } from '../../core/stamps/ready';
import { lastingWords, missingTarget, mostDigits, stampWords, type Stamp } from '../../core/stamps/stamp';
import { readStampFile, stampFile } from '../../core/stamps/stampFile';
import { andWords } from '../../core/text/sentences';
import { fileName } from '../../core/text/fileName';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { commandId, say, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Page } from '../ui/Page';
import { MoveButtons, SortableItem, SortableList } from '../ui/Sortable';
import { saveFile } from '../ui/save';
import { StampMark } from './stampIcon';

const edit = async (edits: SetupEdit[], says: string) =>
  tellOutcome(await mailroom.editSetup(commandId(), edits, says, false));

interface ItemProps {
  stamp: Stamp;
  at: number;
  setup: Setup;
  onMove: (to: number) => void;
}

function StampItem({ stamp, at, setup, onMove }: ItemProps) {
  const { name } = stamp;
  const missing = missingTarget(stamp, setup);
  const running = rulesRunning(setup.rules, stamp.id);
  const takeOff = () => {
    if (running.length > 0)
      return say({
        text: `The rule “${ruleName(running[0], setup)}” runs it: take it out of there first.`,
        tone: 'trouble',
      });
    void edit([{ list: 'stamps', id: stamp.id, item: null }], `Took the stamp “${name}” off`);
  };
  return (
    <SortableItem id={stamp.id} name={name} className="items-start rounded-box px-2 py-2">
      <span className="w-6 pt-0.5 text-center">{at < mostDigits ? <kbd className="key">{at + 1}</kbd> : ''}</span>
      <div className="min-w-52 flex-1">
        <Link
          className={`inline-flex items-center gap-1.5 border-2 border-dashed border-base-content/40 px-2 font-semibold ${stamp.ink ? `stamped ink-${stamp.ink}` : ''}`}
          to={`/stamps/${encodeURIComponent(stamp.id)}`}
        >
          <StampMark icon={stamp.icon} /> {name}
        </Link>
        {lastingWords(stamp) && <span className="ml-2 text-sm text-error">{lastingWords(stamp)}</span>}
        <p className="mt-1 text-sm">
          {stampWords(stamp, setup)[0].toUpperCase()}
          {stampWords(stamp, setup).slice(1)}.
        </p>
        {missing && <p className="quiet text-sm">At its next use it asks for what is not chosen.</p>}
        {running.length > 0 && (
          <p className="quiet text-sm">Run by {andWords(running.map((rule) => `“${ruleName(rule, setup)}”`))}.</p>
        )}
      </div>
      <div className="ml-auto flex items-center">
        <MoveButtons name={name} at={at} of={setup.stamps.length} onMove={onMove} />
        <button
          className="btn btn-square btn-ghost btn-xs"
          aria-label={`Save “${name}” as a file`}
          title="As a file"
          onClick={() =>
            saveFile(new Blob([stampFile(stamp, setup)], { type: 'application/json' }), `${fileName(name)}.stamp.json`)
          }
        >
          <Download size={14} />
        </button>
        <button className="btn btn-ghost btn-xs" aria-label={`Take off “${name}”`} onClick={takeOff}>
          Take off
        </button>
      </div>
    </SortableItem>
  );
}

/** The stamps in the order of the bar, dragged into another. */
function StampList({ setup }: { setup: Setup }) {
  const { stamps } = setup;
  const move = (stamp: Stamp, to: number) =>
    void edit([{ list: 'stamps', id: stamp.id, item: stamp, at: to }], `Moved the stamp “${stamp.name}”`);
  return (
    <SortableList
      label="Stamps in their order"
      ids={stamps.map(({ id }) => id)}
      className="gap-2"
      onMove={(from, to) => move(stamps[from], to)}
    >
      {stamps.map((stamp, at) => (
        <StampItem key={stamp.id} stamp={stamp} at={at} setup={setup} onMove={(to) => move(stamp, to)} />
      ))}
    </SortableList>
  );
}

/** Stamps that stand ready, to be taken as they are. */
function Ready({ setup }: { setup: Setup }) {
  const left = readyStamps(setup.labels).filter(({ name }) => !setup.stamps.some((stamp) => stamp.name === name));
  if (left.length === 0) return null;
  return (
    <section aria-label="Ready ones" className="mt-4">
      <h2 className="mb-1 font-semibold">Ready ones</h2>
      <ul className="flex flex-col">
        {left.map(({ says, ...ready }) => (
          <li key={ready.name} className="flex items-center gap-2 border-t border-base-300 py-1">
            <StampMark icon={ready.icon} />
            <span className="min-w-0 flex-1">
              <span className="font-semibold">{ready.name}</span>
              <span className="quiet block text-sm">{says}</span>
            </span>
            <button
              className="btn btn-outline btn-xs"
              aria-label={`Take it: ${ready.name}`}
              onClick={() => {
                const item = { ...ready, id: commandId() };
                void edit([{ list: 'stamps', id: item.id, item }], `Took the stamp “${ready.name}”`);
              }}
            >
              Take it
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Stamps: several acts by one press. */
export function StampsPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  const picker = useRef<HTMLInputElement>(null);
  if (!setup) return null;
  const bring = async (file: File) => {
    const read = readStampFile(await file.text(), setup, commandId());
    if (!read.ok) return say({ text: `${file.name}: ${read.error}`, tone: 'trouble' });
    const asks = read.unchosen.length ? `; ${andWords(read.unchosen)}: to be chosen at its first use` : '';
    await edit(
      [{ list: 'stamps', id: read.stamp.id, item: read.stamp }],
      `Took the stamp “${read.stamp.name}” from a file${asks}`,
    );
  };
  return (
    <Page
      title="Stamps"
      acts={
        <>
          <UndoSpot />
          <input
            ref={picker}
            type="file"
            accept=".json,application/json"
            className="hidden"
            data-testid="stamp-file"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              event.target.value = '';
              if (file) void bring(file);
            }}
          />
          <button className="btn btn-ghost btn-sm" onClick={() => picker.current?.click()}>
            <FileUp size={16} aria-hidden /> From a file
          </button>
          <Link className="btn btn-primary btn-sm" to="/stamps/new">
            <Plus size={16} aria-hidden /> New stamp
          </Link>
        </>
      }
    >
      <div className="flex max-w-3xl flex-col gap-3">
        <p className="max-w-prose">
          A stamp is several acts by one press, on one message or on all that are ticked. The first nine have the digits{' '}
          <kbd className="key">1</kbd> to <kbd className="key">9</kbd>; <kbd className="key">0</kbd> before a digit
          shows first what it would do.
        </p>
        {setup.stamps.length === 0 && (
          <p className="quiet">
            No stamp yet. Take a ready one below, or do something to a message and make a stamp of it.
          </p>
        )}
        <StampList setup={setup} />
        <Ready setup={setup} />
      </div>
    </Page>
  );
}
