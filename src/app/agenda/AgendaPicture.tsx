// The week and the month as a picture: drawn by FullCalendar, in our look (theme.css).
import british from '@fullcalendar/core/locales/en-gb';
import dayGrid from '@fullcalendar/daygrid';
import interaction from '@fullcalendar/interaction';
import FullCalendar from '@fullcalendar/react';
import timeGrid from '@fullcalendar/timegrid';
import type { CalendarOptions, EventInput } from '@fullcalendar/core';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, type NavigateFunction } from 'react-router';
import { count } from '../../core/text/sentences';
import { exactTime } from '../../core/text/time';
import { viewPath } from '../paths';
import { runAct } from '../state/desk';
import { openItem, reopenItem } from './itemDraft';
import { moveTo } from './itemEdits';
import { firstOfDays, hoursOf, isOver, type Rest, type Thing } from './things';

interface AgendaPictureProps {
  view: 'week' | 'month';
  /** A moment of the week or month that is shown, milliseconds since 1970. */
  at: number;
  things: readonly Thing[];
  now: number;
  /** Somebody wants to see the rest of a day, that begins then. */
  onRest: (day: number) => void;
}

const names = { week: 'timeGridWeek', month: 'dayGridMonth' } as const;
/** No day of a picture has more: of the rest it says how many they are. */
const mostOfDay = { week: 40, month: 4 } as const;
const marks: Record<Thing['kind'], string> = { flag: '⚑ ', task: '☐ ', appointment: '', 'put off': '… ', round: '' };

function eventOf(thing: Thing, now: number): EventInput[] {
  if (thing.due === null) return [];
  const off = 'item' in thing && thing.item.status === 'cancelled';
  const over = isOver(thing, now) || off;
  const lasts = thing.kind === 'appointment' && thing.end > thing.due;
  return [
    {
      id: thing.key,
      title: `${thing.kind === 'task' && thing.item.done ? '☑ ' : marks[thing.kind]}${thing.title}`,
      start: thing.due,
      ...(lasts ? { end: thing.end } : {}),
      allDay: thing.wholeDay,
      editable: thing.kind !== 'round' && !off,
      durationEditable: false,
      classNames: [
        `agenda-${thing.kind.replace(' ', '-')}`,
        ...(over ? ['agenda-over'] : []),
        ...(off ? ['agenda-off'] : []),
      ],
      extendedProps: { order: 0, thing },
    },
  ];
}

/** How many more a day has, where it has more than its picture. */
const restOf = ({ day, count: n }: Rest): EventInput => ({
  id: `rest ${day}`,
  title: `and ${count(n)} more`,
  start: day,
  allDay: true,
  editable: false,
  classNames: ['agenda-rest'],
  extendedProps: { order: 1, rest: day },
});

const thingOf = (event: { extendedProps: Record<string, unknown> }): Thing => event.extendedProps.thing as Thing;

/** What never changes of a picture. With options that are others each time it would be drawn anew each time. */
const hours = { hour: '2-digit', minute: '2-digit', hour12: false } as const;
const dayNames = { week: { weekday: 'short', day: 'numeric', month: 'short' }, month: { weekday: 'short' } } as const;
const look = {
  plugins: [dayGrid, timeGrid, interaction],
  headerToolbar: false,
  firstDay: 1,
  locale: british,
  height: 'auto',
  allDayText: 'whole day',
  eventMinHeight: 26,
  eventShortHeight: 40,
  displayEventEnd: false,
  slotLabelFormat: hours,
  eventTimeFormat: hours,
  nowIndicator: true,
  dayMaxEvents: 5,
  // How many more there are stands below them.
  eventOrder: 'order,start,-duration,allDay,title',
  eventDisplay: 'block',
  eventInteractive: true,
  editable: true,
  // Its cells are named by their dates alone, though they hold more: their contents name them.
  dayCellDidMount: ({ el }) => el.removeAttribute('aria-labelledby'),
  eventDidMount: ({ el, event }) => {
    if ('rest' in event.extendedProps) return;
    const thing = thingOf(event);
    el.title = `${thing.title}${thing.due === null ? '' : `, ${exactTime(thing.due)}`}`;
  },
} satisfies CalendarOptions;

function openThing(thing: Thing, navigate: NavigateFunction): void {
  if (thing.kind === 'task' || thing.kind === 'appointment') void reopenItem(thing.item.uid, thing.item.on);
  else if (thing.kind !== 'round') void navigate(viewPath({ kind: 'place', place: thing.row.place }, thing.row.id));
}

/** Moves a thing to another time; whether that was done. */
async function moveThing(thing: Thing, to: number, wholeDay: boolean): Promise<boolean> {
  if (thing.kind === 'task' || thing.kind === 'appointment')
    return moveTo(thing.item, to, wholeDay, thing.item.invited !== '' && thing.item.by === '');
  if (thing.kind === 'round') return false;
  const due = wholeDay ? new Date(to).setHours(23, 59, 59, 999) : to;
  return runAct(
    { ids: [thing.row.id] },
    thing.kind === 'flag'
      ? { do: 'flag', value: true, due }
      : { do: 'putOff', until: wholeDay ? new Date(to).setHours(9, 0, 0, 0) : to },
  );
}

/** What a press or a drag does. */
function useHandlers(onRest: (day: number) => void) {
  const navigate = useNavigate();
  const latest = useRef({ navigate, onRest });
  useLayoutEffect(() => {
    latest.current = { navigate, onRest };
  });
  return useMemo(
    () =>
      ({
        eventClick: ({ event, jsEvent }) => {
          jsEvent.preventDefault();
          const rest: unknown = event.extendedProps.rest;
          if (typeof rest === 'number') latest.current.onRest(rest);
          else openThing(thingOf(event), latest.current.navigate);
        },
        eventDrop: ({ event, revert }) => {
          const to = event.start?.getTime();
          if (to === undefined) return revert();
          void moveThing(thingOf(event), to, event.allDay).then((done) => {
            if (!done) revert();
          });
        },
        dateClick: ({ date, allDay }) =>
          void openItem('appointment', [], {
            start: date.getTime(),
            end: date.getTime() + (allDay ? 86_400_000 : 3_600_000),
            wholeDay: allDay,
          }),
      }) satisfies CalendarOptions,
    [],
  );
}

/** A week by its hours, or a month by its days; what is dragged goes to another day. Another stretch is another picture. */
export function AgendaPicture({ view, at, things, now, onRest }: AgendaPictureProps) {
  const [first, last] = useMemo(() => hoursOf(things), [things]);
  const events = useMemo(() => {
    const [shown, rest] = firstOfDays(things, mostOfDay[view]);
    return [...shown.flatMap((thing) => eventOf(thing, now)), ...rest.map(restOf)];
  }, [things, now, view]);
  const handlers = useHandlers(onRest);
  // Where the address names no day, it is now, which goes on.
  const [initialDate] = useState(at);
  return (
    <div className="overflow-x-auto">
      <div className="agenda-picture">
        <FullCalendar
          {...look}
          {...handlers}
          initialView={names[view]}
          initialDate={initialDate}
          slotMinTime={`${first}:00`}
          slotMaxTime={`${last}:00`}
          dayHeaderFormat={dayNames[view]}
          events={events}
        />
      </div>
    </div>
  );
}
