import { addDays, addMonths, startOfISOWeek, startOfMonth } from 'date-fns';
import { CalendarPlus, Download, ListPlus } from 'lucide-react';
import { useMemo, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { inStretches } from '../../core/agenda/stretches';
import { count } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { DueDialog } from '../desk/DueDialog';
import { PutOffDialog } from '../desk/PutOffDialog';
import { UndoSpot } from '../desk/StampBar';
import { useMailbox } from '../state/overview';
import { saveFile } from '../ui/save';
import { Page } from '../ui/Page';
import { useAnswer } from '../ui/useAnswer';
import { useNow } from '../ui/useNow';
import { usePart } from '../ui/usePart';
import { Waiting } from '../ui/Waiting';
import { AgendaThing, DoneRow, DoneTask } from './AgendaThing';
import { CalendarsIn } from './CalendarsIn';
import { openItem } from './itemDraft';
import { canBeLate, thingKinds, thingsOf, thingWords, weekWords, type Thing, type ThingKind } from './things';
import type { Setup } from '../../core/line/setup';
import type { DatedStretch } from '../../mailroom/border/agenda';
import type { Agenda } from '../../mailroom/border/rules';

// The picture of weeks and months is large, and wanted only where one is looked at.
const picturePart = () => import('./AgendaPicture');

const views = ['list', 'week', 'month'] as const;
type AgendaView = (typeof views)[number];
const viewWords: Record<AgendaView, string> = { list: 'List', week: 'Week', month: 'Month' };

/** So far ahead the list looks, in days. */
const ahead = 92;

/** Which stretch of time is looked at, in a view. */
function stretchOf(view: AgendaView, at: number, now: number): [from: number, to: number] {
  if (view === 'list') {
    const today = new Date(now).setHours(0, 0, 0, 0);
    return [today, addDays(today, ahead).getTime()];
  }
  if (view === 'week') return [startOfISOWeek(at).getTime(), addDays(startOfISOWeek(at), 7).getTime()];
  const from = startOfISOWeek(startOfMonth(at));
  return [from.getTime(), addDays(from, 42).getTime()];
}

/** What the address says of what is shown. */
function useShown(now: number) {
  const [search, setSearch] = useSearchParams();
  const view = views.find((one) => one === search.get('view')) ?? 'list';
  const without = search.get('without') ?? '';
  const withRounds = search.get('rounds') === 'shown';
  const hidden = without.split(',');
  // Rounds come several times a day, and are wanted by few: they are shown on demand.
  const shown = useMemo(
    () => new Set(thingKinds.filter((kind) => (kind === 'round' ? withRounds : !without.split(',').includes(kind)))),
    [without, withRounds],
  );
  const at = Number(search.get('at')) || now;
  const set = (some: Record<string, string | null>) =>
    setSearch((before) => {
      const next = new URLSearchParams(before);
      for (const [key, one] of Object.entries(some))
        if (one === null) next.delete(key);
        else next.set(key, one);
      return next;
    });
  const toggle = (kind: ThingKind, on: boolean) => {
    if (kind === 'round') return set({ rounds: on ? 'shown' : null });
    const left = thingKinds.filter((one) => one !== 'round' && (one === kind ? !on : hidden.includes(one)));
    set({ without: left.length ? left.join(',') : null });
  };
  const go = (by: number) => set({ at: String((view === 'week' ? addDays(at, 7 * by) : addMonths(at, by)).getTime()) });
  return { view, shown, at, set, toggle, go };
}

type Shown = ReturnType<typeof useShown>;

/** How it is shown, of what, and what the week comes to. */
function Bar({ shown: { view, shown, set, toggle, go }, words }: { shown: Shown; words: string }) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-base-300 px-5 py-1.5">
      <div className="join" role="group" aria-label="Shown as">
        {views.map((one) => (
          <button
            key={one}
            className={`btn join-item btn-xs font-normal ${view === one ? 'btn-primary' : 'btn-outline border-base-300'}`}
            aria-pressed={view === one}
            // The week or month that is looked at stays so; a list has none.
            onClick={() => set(one === 'list' ? { view: null, at: null } : { view: one })}
          >
            {viewWords[one]}
          </button>
        ))}
      </div>
      {view !== 'list' && (
        <div className="flex items-center gap-1">
          <button className="btn btn-ghost btn-xs" onClick={() => go(-1)}>
            {view === 'week' ? 'Week before' : 'Month before'}
          </button>
          <button className="btn btn-ghost btn-xs" onClick={() => set({ at: null })}>
            Today
          </button>
          <button className="btn btn-ghost btn-xs" onClick={() => go(1)}>
            {view === 'week' ? 'Next week' : 'Next month'}
          </button>
        </div>
      )}
      <fieldset className="flex flex-wrap gap-x-3">
        <legend className="sr-only">What is shown</legend>
        {thingKinds.map((kind) => (
          <label key={kind} className="flex items-center gap-1.5 text-sm">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={shown.has(kind)}
              onChange={(event) => toggle(kind, event.target.checked)}
            />
            {thingWords[kind]}
          </label>
        ))}
      </fieldset>
      <p className="text-sm" role="status">
        {words}
      </p>
    </div>
  );
}

/** What can be made, brought in and saved. */
const Acts = () => (
  <>
    <UndoSpot />
    <CalendarsIn />
    <button
      className="btn btn-ghost btn-sm"
      onClick={() =>
        void mailroom
          .exportItems(null, false)
          .then((text) => saveFile(new Blob([text], { type: 'text/calendar' }), 'agenda.ics'))
      }
      title="All tasks and appointments as a calendar (RFC 5545)"
    >
      <Download size={16} aria-hidden /> Save .ics
    </button>
    <button className="btn btn-outline btn-sm" onClick={() => void openItem('task')}>
      <ListPlus size={16} aria-hidden /> New task
    </button>
    <button className="btn btn-primary btn-sm" onClick={() => void openItem('appointment')}>
      <CalendarPlus size={16} aria-hidden /> New appointment
    </button>
  </>
);

/** So many of what is late are shown at first, the last that fell due; of all else so many, and so many more at a time. */
const [firstLate, firstRows, moreRows] = [5, 25, 100];

interface StretchProps {
  title: string;
  rows: readonly Thing[];
  /** So many more there are, of which nothing more is known here. */
  beyond: number;
  item: (thing: Thing) => ReactNode;
}

/** One stretch of time; what has been late for long is folded away, and of very many the rest is asked for. */
function Stretch({ title, rows, beyond, item }: StretchProps) {
  const [all, setAll] = useState(false);
  const [most, setMost] = useState(firstRows);
  const late = title === 'Late';
  const wanted = late && !all ? rows.slice(-firstLate) : rows;
  const shown = wanted.slice(0, most);
  const more = Math.min(moreRows, wanted.length - shown.length);
  return (
    <section aria-label={title} className="mb-5 max-w-4xl">
      <h2 className={`mb-1 font-semibold ${late ? 'text-accent' : ''}`}>
        {title} <span className="quiet font-normal tabular-nums">{count(rows.length + beyond)}</span>
        {late && rows.length > firstLate && (
          <button className="btn ml-3 font-normal btn-ghost btn-xs" aria-expanded={all} onClick={() => setAll(!all)}>
            {all ? `Only the last ${firstLate}` : `${beyond ? 'The last' : 'All'} ${count(rows.length)} that are late`}
          </button>
        )}
      </h2>
      <ul className="flex flex-col">{shown.map(item)}</ul>
      {more > 0 && (
        <button className="btn mt-1 font-normal btn-ghost btn-xs" onClick={() => setMost(most + moreRows)}>
          {count(shown.length)} of {count(wanted.length)} are shown: {count(more)} more
        </button>
      )}
    </section>
  );
}

/** How many more tasks there are than are told, by the stretch. */
const beyondOf = ({ late, lateTotal, undated, undatedTotal }: DatedStretch): Record<string, number> => ({
  Late: lateTotal - late.length,
  'Without a date': undatedTotal - undated.length,
});

/** More tasks and appointments no list has. */
const mostOfList = 1_000;

interface ListProps {
  things: readonly Thing[];
  agenda: Agenda;
  stretch: DatedStretch;
  /** Of some stretches there are so many more tasks than things, by their titles. */
  beyond: Record<string, number>;
  setup: Setup;
  now: number;
}

/** All of it by stretches of time, what is late first. */
function List({ things, agenda, stretch, beyond, setup, now }: ListProps) {
  const [dueOf, setDueOf] = useState<number | null>(null);
  const [putOffOf, setPutOffOf] = useState<number | null>(null);
  const nothing = things.length + stretch.done.length + agenda.done.length === 0;
  return (
    <>
      {nothing && (
        <p className="max-w-prose">
          Nothing has a date. Open a message and press <kbd className="key">D</kbd> to flag it for a day,{' '}
          <kbd className="key">Shift K</kbd> for a task or <kbd className="key">Shift A</kbd> for an appointment: it
          stands here until it is done.
        </p>
      )}
      {inStretches(things, now, canBeLate)
        .filter(({ rows }) => rows.length > 0)
        .map(({ title, rows }) => (
          <Stretch
            key={title}
            title={title}
            rows={rows}
            beyond={beyond[title] ?? 0}
            item={(thing) => (
              <AgendaThing
                key={thing.key}
                thing={thing}
                setup={setup}
                now={now}
                onDue={setDueOf}
                onPutOff={setPutOffOf}
              />
            )}
          />
        ))}
      {agenda.total > agenda.rows.length && (
        <p className="quiet mb-5">and {count(agenda.total - agenda.rows.length)} more flags without a date.</p>
      )}
      {agenda.done.length + stretch.done.length > 0 && (
        <section aria-label="Done" className="mb-5 max-w-4xl">
          <h2 className="quiet mb-1 font-semibold">
            Done <span className="font-normal tabular-nums">{count(agenda.doneTotal + stretch.done.length)}</span>
          </h2>
          <ul className="flex flex-col">
            {stretch.done.map((task) => (
              <DoneTask key={task.uid} task={task} />
            ))}
            {agenda.done.map((row) => (
              <DoneRow key={row.id} row={row} setup={setup} />
            ))}
          </ul>
        </section>
      )}
      {putOffOf !== null && <PutOffDialog selection={{ ids: [putOffOf] }} onClose={() => setPutOffOf(null)} />}
      {dueOf !== null && <DueDialog selection={{ ids: [dueOf] }} onClose={() => setDueOf(null)} />}
    </>
  );
}

/** All that has a day: flags, tasks, appointments, what is put off, and the rounds to come. */
export function AgendaPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  const revision = useMailbox((s) => s.revision);
  // What falls due while one looks is late from then on.
  const tick = useNow(30_000);
  const shown = useShown(tick);
  const { view, at } = shown;
  const [from, to] = stretchOf(view, at, tick);
  const weekFrom = startOfISOWeek(tick).getTime();
  const weekTo = addDays(weekFrom, 7).getTime();
  const { value, error } = useAnswer(async () => {
    const [agenda, stretch, week] = await Promise.all([
      mailroom.agenda(),
      mailroom.dated(from, to, view === 'list' ? mostOfList : undefined),
      mailroom.dated(weekFrom, weekTo),
    ]);
    // What is shown goes by what was answered: nothing is drawn with the days of another view.
    return { of: { view, from, to, at }, agenda, stretch, week, now: Date.now() };
  }, `${revision} ${tick} ${view} ${from} ${to}`);
  // Once the list is there, too: whoever presses for a picture should not wait for its code.
  const Picture = usePart(picturePart, view !== 'list' || value !== null)?.AgendaPicture;
  // The same as long as nothing changed: a picture is drawn anew with others.
  const things = useMemo(
    () => (value ? thingsOf(value.agenda, value.stretch, shown.shown, value.of.view === 'list') : []),
    [value, shown.shown],
  );
  const pictured = useMemo(
    () =>
      things.filter(
        ({ due, end }) => value && due !== null && due < value.of.to && Math.max(due, end) >= value.of.from,
      ),
    [things, value],
  );
  const ofWeek = useMemo(() => (value ? thingsOf(value.agenda, value.week, allKinds, true) : []), [value]);
  if (!setup) return null;
  const now = value?.now ?? tick;
  return (
    <Page title="Agenda" whole acts={<Acts />}>
      <Bar
        shown={shown}
        words={value ? weekWords(ofWeek, weekFrom, weekTo, now, value.week.lateTotal - value.week.late.length) : ''}
      />
      <div className="min-h-0 flex-1 overflow-y-auto px-5 py-3">
        {error && <p className="border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>}
        {!value && !error && <Waiting says="Looking for what has a day …" />}
        {value && value.stretch.total > value.stretch.items.length && (
          <p className="quiet mb-3">
            {count(value.stretch.items.length)} of {count(value.stretch.total)} tasks and appointments of this stretch
            are here, the first of it.
          </p>
        )}
        {value &&
          value.of.view !== 'list' &&
          (Picture ? (
            <Picture
              key={`${value.of.view} ${value.of.from}`}
              view={value.of.view}
              at={value.of.at}
              things={pictured}
              now={now}
              // A month leads to the week, a week to the list.
              onRest={(day) =>
                shown.set(value.of.view === 'month' ? { view: 'week', at: String(day) } : { view: null, at: null })
              }
            />
          ) : (
            <Waiting says="Looking for what has a day …" />
          ))}
        {value?.of.view === 'list' && (
          <List
            things={things}
            agenda={value.agenda}
            stretch={value.stretch}
            beyond={shown.shown.has('task') ? beyondOf(value.stretch) : {}}
            setup={setup}
            now={now}
          />
        )}
      </div>
    </Page>
  );
}

const allKinds: ReadonlySet<ThingKind> = new Set(thingKinds);
