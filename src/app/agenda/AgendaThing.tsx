import {
  CalendarClock,
  CalendarDays,
  Check,
  Flag,
  GalleryVerticalEnd,
  Hourglass,
  Mail,
  type LucideIcon,
} from 'lucide-react';
import { Link } from 'react-router';
import type { Setup } from '../../core/line/setup';
import { placeName } from '../../core/mail/place';
import { dueWords, exactTime, isoTime } from '../../core/text/time';
import { format } from 'date-fns';
import type { DatedItem } from '../../mailroom/border/agenda';
import type { Row } from '../../mailroom/border/rows';
import { viewPath } from '../paths';
import { runAct } from '../state/desk';
import { InkMark, InkTag } from '../ui/InkTag';
import { reopenItem } from './itemDraft';
import { markDone } from './itemEdits';
import { isOver, type Thing, type ThingKind } from './things';

const pictures: Record<ThingKind, { icon: LucideIcon; word: string }> = {
  flag: { icon: Flag, word: 'Flag' },
  task: { icon: Check, word: 'Task' },
  appointment: { icon: CalendarDays, word: 'Appointment' },
  'put off': { icon: Hourglass, word: 'Put off' },
  round: { icon: GalleryVerticalEnd, word: 'Round' },
};

const line = 'flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-2 py-1.5';

interface ThingProps {
  thing: Thing;
  setup: Setup;
  now: number;
  onDue: (id: number) => void;
  onPutOff: (id: number) => void;
}

/** One line of the Agenda. */
export function AgendaThing(props: ThingProps) {
  const { thing } = props;
  if (thing.kind === 'flag') return <FlagLine {...props} row={thing.row} />;
  if (thing.kind === 'put off') return <PutOffLine {...props} row={thing.row} />;
  if (thing.kind === 'round')
    return (
      <li className={`${line} quiet`}>
        <KindMark kind="round" />
        <span className="min-w-52 flex-1">{thing.title}</span>
        {thing.due !== null && (
          <When due={thing.due} now={props.now} late={false} words={dueWords(thing.due, props.now)} />
        )}
      </li>
    );
  return <ItemLine item={thing.item} due={thing.due} over={isOver(thing, props.now)} now={props.now} />;
}

/** Which kind it is: an icon, and a word for who sees none. */
function KindMark({ kind }: { kind: ThingKind }) {
  const { icon: Picture, word } = pictures[kind];
  return (
    <span className="inline-flex w-6 justify-center" title={word}>
      <Picture size={15} aria-hidden />
      <span className="sr-only">{word}</span>
    </span>
  );
}

const When = ({ due, late, words }: { due: number; now: number; late: boolean; words: string }) => (
  <time
    className={`text-sm whitespace-nowrap ${late ? 'font-semibold text-accent' : ''}`}
    dateTime={isoTime(due)}
    title={exactTime(due)}
  >
    {words}
  </time>
);

function Done({ title, onDone }: { title: string; onDone: () => void }) {
  return (
    <button
      className="btn btn-square btn-outline btn-xs [&:not(:hover,:focus-visible)>svg]:opacity-0"
      aria-label={`Done: ${title}`}
      title="Done"
      onClick={onDone}
    >
      <Check size={14} />
    </button>
  );
}

/** When an appointment is, from and to. */
function timeWords({ at, end, wholeDay }: DatedItem, due: number, now: number): string {
  if (at === null) return '';
  const begins = dueWords(due, Math.min(now, due));
  if (wholeDay) {
    const last = end - 86_400_000;
    const day = begins.replace(/ 00:00$/, '');
    return last > at ? `${day} to ${format(last, 'EEE d MMM')}` : day;
  }
  return end > at ? `${begins} to ${format(end, 'HH:mm')}` : begins;
}

/** A task or an appointment. */
function ItemLine({ item, due, over, now }: { item: DatedItem; due: number | null; over: boolean; now: number }) {
  const off = item.status === 'cancelled';
  const aside = [
    item.place,
    item.repeats && `comes again ${item.repeats}`,
    item.by && `${item.by} invites`,
    item.invited,
    item.mine === 'needs-action' ? 'not answered yet' : (item.mine ?? ''),
  ].filter(Boolean);
  return (
    <li className={`${line} ${over || off ? 'quiet' : ''}`}>
      {item.kind === 'task' && !off ? (
        <Done title={item.title} onDone={() => void markDone(item, true)} />
      ) : (
        <KindMark kind={item.kind} />
      )}
      <span className="flex min-w-52 flex-1 flex-col">
        <button
          className={`link truncate text-left ${off ? 'line-through' : ''}`}
          dir="auto"
          onClick={() => void reopenItem(item.uid, item.on)}
        >
          {item.title}
        </button>
        {aside.length > 0 && (
          <span className="quiet truncate text-sm" dir="auto">
            {aside.join(' · ')}
          </span>
        )}
      </span>
      {off && <span className="text-sm">called off</span>}
      {item.status === 'tentative' && <span className="text-sm">tentative</span>}
      {item.message && (
        <Link
          className="btn btn-ghost btn-xs"
          to={viewPath({ kind: 'place', place: item.message.place }, item.message.id)}
          aria-label={`The message of ${item.title}`}
          title={item.messages > 1 ? `The first of its ${item.messages} messages` : 'Its message'}
        >
          <Mail size={14} />
        </Link>
      )}
      {due !== null && (
        <When
          due={due}
          now={now}
          late={item.late}
          words={item.kind === 'task' ? dueWords(due, now) : timeWords(item, due, now)}
        />
      )}
    </li>
  );
}

/** What a line is about: its subject, which opens it, who wrote and where it is. */
function What({ row, setup }: { row: Row; setup: Setup }) {
  return (
    <span className="flex min-w-52 flex-1 flex-col">
      <Link
        className={`link truncate ${row.unread ? 'font-bold' : ''}`}
        to={viewPath({ kind: 'place', place: row.place }, row.id)}
        dir="auto"
      >
        {row.subject || 'No subject'}
      </Link>
      <span className="quiet truncate text-sm" dir="auto">
        {row.own ? `To ${row.to.map((a) => a.name || a.address).join(', ')}` : row.from.name || row.from.address} ·{' '}
        {placeName(row.place, setup.folders)}
      </span>
    </span>
  );
}

function FlagLine({ row, setup, now, onDue }: ThingProps & { row: Row }) {
  const subject = row.subject || 'No subject';
  return (
    <li className={`${line} ${row.ink ? `inked ink-${row.ink}` : ''}`}>
      <Done title={subject} onDone={() => void runAct({ ids: [row.id] }, { do: 'done' })} />
      <What row={row} setup={setup} />
      <Flag size={13} aria-label="Flag" />
      {row.ink && <InkMark ink={row.ink} />}
      {row.labels.slice(0, 3).map((label) => (
        <InkTag key={label} id={label} setup={setup} />
      ))}
      {row.due !== null && <When due={row.due} now={now} late={row.late} words={dueWords(row.due, now)} />}
      <button
        className="btn btn-ghost btn-xs"
        onClick={() => onDue(row.id)}
        aria-label={`Another date: ${subject}`}
        title="Another date"
      >
        <CalendarClock size={14} />
      </button>
    </li>
  );
}

/** What is put off: until when, another moment, and back at once. */
function PutOffLine({ row, setup, now, onPutOff }: ThingProps & { row: Row }) {
  const subject = row.subject || 'No subject';
  const until = row.until ?? 0;
  return (
    <li className={line}>
      <KindMark kind="put off" />
      <What row={row} setup={setup} />
      <When due={until} now={now} late={false} words={`until ${dueWords(until, now)}`} />
      <button
        className="btn btn-ghost btn-xs"
        aria-label={`Back to the Inbox: ${subject}`}
        onClick={() => void runAct({ ids: [row.id] }, { do: 'move', place: 'inbox' })}
      >
        Back to the Inbox
      </button>
      <button
        className="btn btn-ghost btn-xs"
        onClick={() => onPutOff(row.id)}
        aria-label={`Another moment: ${subject}`}
        title="Another moment"
      >
        <CalendarClock size={14} />
      </button>
    </li>
  );
}

/** A flag that is done. */
export function DoneRow({ row, setup }: { row: Row; setup: Setup }) {
  return (
    <li className={line}>
      <button
        className="btn btn-ghost btn-xs"
        aria-label={`Flag again: ${row.subject || 'No subject'}`}
        onClick={() => void runAct({ ids: [row.id] }, { do: 'flag', value: true })}
      >
        Flag again
      </button>
      <What row={row} setup={setup} />
    </li>
  );
}

/** A task that is done. */
export function DoneTask({ task }: { task: DatedItem }) {
  return (
    <li className={line}>
      <button
        className="btn btn-ghost btn-xs"
        aria-label={`Not done after all: ${task.title}`}
        onClick={() => void markDone({ ...task, on: null }, false)}
      >
        Not done after all
      </button>
      <button className="link min-w-52 flex-1 truncate text-left" dir="auto" onClick={() => void reopenItem(task.uid)}>
        {task.title}
      </button>
    </li>
  );
}
