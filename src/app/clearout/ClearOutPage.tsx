import { useEffect, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { readyClearOuts, type ClearOut } from '../../core/clearout/clearOut';
import type { Setup } from '../../core/line/setup';
import type { Overview } from '../../mailroom/border/overview';
import type { ClearOutReport } from '../../mailroom/border/clearOuts';
import { mailroom, onMailroom } from '../../mailroom/client';
import type { Act, View } from '../../mailroom/border/views';
import { UndoSpot } from '../desk/StampBar';
import { runAct } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Sure } from '../ui/Sure';
import { Halves, Page } from '../ui/Page';
import { useAnswer } from '../ui/useAnswer';
import { narrowedName, viewName } from '../ui/naming';
import { count } from '../../core/text/sentences';
import { wholeActs, type WholeAct } from './clearOutActs';
import { clearOutPath, isChosen, readClearOut, type ClearOutAt } from './clearOutLink';
import { ClearOutFields } from './ClearOutFields';
import { ClearOutPreview } from './ClearOutPreview';

/** A field shows what is typed at once, not when the page has time; Back leads to where one came from. */
const atOnce = { replace: true, flushSync: true } as const;

/** More messages than these are asked about, once. */
export const asksAbove = 500;

/** What is asked for one report after another, and how far it is. */
function useReport(asker: string, at: ClearOutAt, delay: number) {
  const { of, choice } = at;
  const chosen = isChosen(at);
  const revision = useMailbox((s) => s.revision);
  const [progress, setProgress] = useState<{ done: number; total: number } | null>(null);
  const question = JSON.stringify([of, choice, chosen]);
  const answer = useAnswer(
    async () => {
      const report = chosen ? await mailroom.clearOutReport(asker, choice, of) : null;
      setProgress(null);
      return report;
    },
    `${question} ${revision}`,
    delay,
    // What was asked before says nothing about what is chosen now.
    question,
  );
  useEffect(
    () =>
      onMailroom((event) => {
        if (event.kind === 'progress' && event.job === asker) setProgress({ done: event.done, total: event.total });
      }),
    [asker],
  );
  // Nobody waits any more once the page is left.
  useEffect(() => () => void mailroom.drop(asker), [asker]);
  return { report: answer.value, waiting: answer.waiting || answer.value === null, error: answer.error, progress };
}

/** The clear-outs that are ready, each with how much it would touch. */
function Ready({ at: { of, choice, whole }, onPick }: { at: ClearOutAt; onPick: (choice: ClearOut) => void }) {
  const revision = useMailbox((s) => s.revision);
  const { value: counts } = useAnswer(
    () =>
      mailroom.clearOutCounts(
        readyClearOuts.map((ready) => ready.choice),
        of,
      ),
    `${JSON.stringify(of)} ${revision}`,
    50,
  );
  return (
    <ul>
      {readyClearOuts.map((ready, at) => {
        const on = !whole && JSON.stringify(ready.choice) === JSON.stringify(choice);
        const n = counts?.[at];
        return (
          <li key={ready.id}>
            <button
              className={`flex min-h-7 w-full items-baseline gap-2 rounded px-2 py-0.5 text-left hover:bg-base-200 ${on ? 'bg-base-300 font-semibold' : ''}`}
              aria-pressed={on}
              onClick={() => onPick(ready.choice)}
            >
              <span className="min-w-0 flex-1">{ready.name}</span>
              <span className="quiet text-sm tabular-nums">
                {/* To know what stands whole elsewhere takes long: it is found out when it is asked for. */}
                {ready.choice.redundant ? 'looks into all texts' : typeof n === 'number' ? count(n) : '…'}
              </span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}

/** What follows of a clear-out, before it is done. */
function Consequences({ report, act }: { report: ClearOutReport; act: Act }) {
  const outstanding = Object.values(report.standsOut).reduce((a, b) => a + b, 0);
  return (
    <>
      <p>
        {act.do === 'move' && act.place === 'bin'
          ? 'They stay in the Bin for 30 days, then they are deleted for good.'
          : act.do === 'move'
            ? 'They are kept for ever, and found by search.'
            : 'They stay where they are.'}{' '}
        One Undo brings all of it back.
      </p>
      {outstanding > 0 && (
        <p className="mt-2">Among them are some that stand out: look at them on the right first if in doubt.</p>
      )}
    </>
  );
}

/** What can be cleared out: a view, or with null all places that are counted. */
interface PlaceOption {
  path: string;
  name: string;
  view: View | null;
}

function placeOptions(setup: Setup, of: View | null): PlaceOption[] {
  const some: View[] = [
    { kind: 'place', place: 'inbox' },
    { kind: 'place', place: 'archive' },
    ...setup.folders.map(({ id }): View => ({ kind: 'place', place: `folder:${id}` })),
    { kind: 'place', place: 'sent' },
    { kind: 'place', place: 'junk' },
    ...setup.labels.map(({ id }): View => ({ kind: 'label', label: id })),
    ...setup.searches.map(({ query, within }): View => ({ kind: 'found', query, within })),
  ];
  const list = some.map((view) => ({
    path: JSON.stringify(view),
    name: viewName(view, setup),
    view: view as View | null,
  }));
  const here = JSON.stringify(of);
  if (of && !list.some(({ path }) => path === here)) list.push({ path: here, name: narrowedName(of, setup), view: of });
  return [...list, { path: 'null', name: 'All places but Junk, Bin, Sent and Drafts', view: null }];
}

interface ClearOutOfWhatProps {
  options: readonly PlaceOption[];
  of: View | null;
  onChange: (of: View | null) => void;
}

function ClearOutOfWhat({ options, of, onChange }: ClearOutOfWhatProps) {
  return (
    <label className="flex flex-col text-sm">
      Clear out of
      <select
        className="select w-full select-sm"
        value={JSON.stringify(of)}
        onChange={(event) => {
          onChange(options.find(({ path }) => path === event.target.value)?.view ?? null);
        }}
      >
        {options.map(({ path, name }) => (
          <option key={path} value={path}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Before anything is chosen: nothing goes, and what one can do is said. */
function NothingChosen({ name, onWhole }: { name: string; onWhole: () => void }) {
  return (
    <section aria-label="What would go" className="flex flex-col items-start gap-3">
      <h2 className="text-lg font-semibold">Nothing is chosen yet</h2>
      <p className="max-w-prose">
        Take a ready one, or say what goes: how old, read or not, by whom, how large. What it would touch is shown here
        before anything goes.
      </p>
      <button className="btn btn-sm" onClick={onWhole}>
        Choose everything: {name}
      </button>
    </section>
  );
}

function ClearOutOf({
  at,
  overview,
  onChange,
}: {
  at: ClearOutAt;
  overview: Overview;
  onChange: (at: ClearOutAt) => void;
}) {
  const { setup } = overview;
  const { of, choice } = at;
  const [asker] = useState(() => crypto.randomUUID());
  const { report, waiting, error, progress } = useReport(asker, at, 80);
  const [asking, setAsking] = useState<WholeAct | null>(null);
  const [running, setRunning] = useState(false);
  const set = (some: Partial<ClearOut>) => onChange({ ...at, choice: { ...choice, ...some } });
  const chosen = isChosen(at);
  const run = async (act: Act) => {
    setAsking(null);
    setRunning(true);
    await runAct({ clearOut: choice, of }, act);
    setRunning(false);
  };
  const options = placeOptions(setup, of);
  const name = options.find(({ path }) => path === JSON.stringify(of))?.name ?? '';
  const inPlace = of?.kind === 'place' ? of.place : null;
  return (
    <Halves
      left={
        <>
          <ClearOutOfWhat
            options={options}
            of={of}
            onChange={(view) => onChange({ of: view, choice: { ...choice, keep: [] } })}
          />
          <section aria-label="Ready ones">
            <h2 className="font-semibold">Ready ones</h2>
            <p className="quiet mb-1 text-sm">They leave flagged mail where it is.</p>
            <Ready at={at} onPick={(ready) => onChange({ of, choice: ready })} />
          </section>
          <section aria-label="What goes">
            <h2 className="mb-1 font-semibold">What goes</h2>
            <ClearOutFields choice={choice} onChange={set} />
          </section>
        </>
      }
      right={
        <div className="flex flex-col gap-3">
          {chosen ? (
            <ClearOutPreview
              report={report}
              waiting={waiting}
              error={error}
              progress={progress}
              choice={choice}
              setup={setup}
              name={name}
              onSpare={(spare) => set({ spare })}
            />
          ) : (
            <NothingChosen name={name} onWhole={() => onChange({ ...at, whole: true })} />
          )}
          <div
            className="sticky -bottom-4 flex flex-wrap gap-2 border-t border-base-300 bg-base-100 py-3"
            role="group"
            aria-label="Acts"
          >
            {wholeActs
              .filter(({ act }) => act.do !== 'move' || act.place !== inPlace)
              .map((one, at) => {
                const n = report ? one.reach(report) : 0;
                return (
                  <button
                    key={one.word}
                    className={`btn btn-sm ${at === 0 ? 'btn-primary' : ''}`}
                    disabled={n === 0 || waiting || running}
                    onClick={() => (n > asksAbove ? setAsking(one) : void run(one.act))}
                  >
                    {n === 0 ? one.word : one.says(n)}
                  </button>
                );
              })}
          </div>
          {asking && report && (
            <Sure
              words={asking.says(asking.reach(report))}
              onGo={() => void run(asking.act)}
              onClose={() => setAsking(null)}
            >
              <Consequences report={report} act={asking.act} />
            </Sure>
          )}
        </div>
      }
    />
  );
}

/** Clear-out: a great many messages by age, state, sender, number and size, looked at before they go. */
export function ClearOutPage() {
  const overview = useMailbox((s) => s.overview);
  const [query] = useSearchParams();
  const navigate = useNavigate();
  if (!overview) return null;
  return (
    <Page title="Clear-out" acts={<UndoSpot />}>
      <ClearOutOf
        at={readClearOut(query)}
        overview={overview}
        onChange={(at) => void navigate(clearOutPath(at), atOnce)}
      />
    </Page>
  );
}
