import { BellOff, Flag, FlagOff, GalleryVerticalEnd, MessagesSquare, Paperclip, TriangleAlert } from 'lucide-react';
import { Fragment, memo, useState, type MouseEvent } from 'react';
import type { Setup } from '../../core/line/setup';
import type { Row } from '../../mailroom/border/rows';
import type { View } from '../../mailroom/border/views';
import { placeName } from '../../core/mail/place';
import { act } from '../state/desk';
import type { Ticked } from '../state/ticks';
import { usePreferences } from '../state/preferences';
import { InkMark, InkTag } from '../ui/InkTag';
import { Marked } from '../ui/Marked';
import { dayOf, dueWords, exactTime, isoTime, shortTime } from '../../core/text/time';
import { count } from '../../core/text/sentences';
import { conversationWords } from '../ui/naming';
import { actOf, rowTarget, type Target } from './deskActs';
import { holdsRows } from './useHeldRows';
import { useSwipe } from './useSwipe';

interface RowItemProps {
  row: Row;
  index: number;
  view: View;
  setup: Setup;
  now: number;
  open: boolean;
  ticked: Ticked;
  /** Of the same conversation as the open message, where rows are messages. */
  related: boolean;
  /** The same function for every row, so that scrolling draws anew only what is new. */
  onPress: (event: MouseEvent, row: Row, index: number) => void;
  onTick: (row: Row, index: number, on: boolean, range: boolean) => void;
}

/** Who a row is about: the sender, for mail of one's own the recipients, for a conversation those who wrote last. */
function people(row: Row) {
  if (row.tray)
    return (
      <span className="inline-flex items-center gap-1.5">
        <GalleryVerticalEnd size={14} aria-label="Tray" className="shrink-0 text-primary" />
        {row.tray.name}
      </span>
    );
  if (row.whole && row.whole.people.length > 1)
    return row.whole.people.map(({ name, unread }, i) => (
      <Fragment key={name}>
        {i > 0 && ', '}
        <span className={unread ? 'font-bold' : ''}>
          <Marked text={name} part="people" />
        </span>
      </Fragment>
    ));
  if (row.place === 'sent' || row.place === 'drafts') {
    const names = row.to.map((a) => a.name || a.address).join(', ');
    return (
      <>
        To <Marked text={names || 'nobody named'} part="people" />
      </>
    );
  }
  return <Marked text={row.from.name || row.from.address || 'No sender'} part="people" />;
}

/** What a tray’s row says beside its name: how many are new, from how many, and who. */
function trayWords({ tray, whole }: Row): string | null {
  if (!tray || !whole) return null;
  const { here, unread, people: names } = whole;
  const many = unread > 0 ? `${count(unread)} new` : `${count(here)} read`;
  const from = tray.senders === null ? '' : ` from ${count(tray.senders)} sender${tray.senders === 1 ? '' : 's'}`;
  return `${many}${from}: ${names.map(({ name }) => name).join(', ')}`;
}

/** The acts that the person chose, on the row under the pointer. The keyboard has its own way to them. */
function HoverActs({ view, target }: { view: View; target: Target }) {
  const chosen = usePreferences((s) => s.hoverActs);
  return (
    <span className="absolute -top-1 right-0 flex" {...holdsRows}>
      {chosen.map((id) => {
        const item = actOf(id, view);
        return (
          item && (
            <button
              key={id}
              tabIndex={-1}
              className="btn btn-square btn-ghost btn-xs"
              aria-label={item.word}
              title={`${item.word} (${item.keyWord})`}
              onClick={(event) => {
                event.stopPropagation();
                // The second press of two would fall on what came there by the first.
                if (event.detail <= 1) void act(target.selection, item.act);
              }}
            >
              <item.icon size={14} />
            </button>
          )
        );
      })}
    </span>
  );
}

interface SignsProps extends Pick<RowItemProps, 'row' | 'view' | 'now' | 'related'> {
  target: Target;
  /** Whether the row is under the pointer. */
  under: boolean;
}

/** A row’s time exactly, and what it is the time of. */
function timeTitle({ date, back, delivered }: Row): string {
  if (delivered === null) return exactTime(date);
  return `${back === null ? 'Delivered' : 'Back since'} ${exactTime(delivered)}; sent ${exactTime(date)}`;
}

/** The signs at the end of a row, and its time. */
function Signs({ row, view, target, now, related, under }: SignsProps) {
  const hoverActs = usePreferences((s) => s.hoverActs);
  const { whole } = row;
  const flagged = whole ? whole.flagged > 0 : row.flagged;
  const attachments = whole ? whole.attachments : row.attachments;
  return (
    <>
      {row.damage !== null && (
        <span title={`Damaged: ${row.damage}`} className="text-accent">
          <TriangleAlert size={14} aria-label="Damaged" />
        </span>
      )}
      {related && <MessagesSquare size={14} className="shrink-0 text-primary" aria-label="Same conversation" />}
      {row.silenced && <BellOff size={14} className="quiet shrink-0" aria-label="Silenced" />}
      {attachments > 0 && (
        <Paperclip
          size={14}
          className="quiet shrink-0"
          aria-label={attachments === 1 ? '1 attachment' : `${attachments} attachments`}
        />
      )}
      {flagged && <Flag size={14} className="shrink-0 text-accent" fill="currentColor" aria-label="Flagged" />}
      {row.done && !flagged && <FlagOff size={14} className="quiet shrink-0" aria-label="Done" />}
      {!whole && row.late && <span className="shrink-0 text-xs font-semibold text-accent">late</span>}
      {/* Under the pointer the chosen acts take the place of the time. */}
      <span className="relative min-w-18 shrink-0 text-right whitespace-nowrap">
        <time
          className={`quiet text-sm tabular-nums ${under && hoverActs.length ? 'invisible' : ''}`}
          dateTime={isoTime(row.delivered ?? row.date)}
          title={timeTitle(row)}
        >
          {shortTime(row.delivered ?? row.date, now)}
        </time>
        {under && <HoverActs view={view} target={target} />}
      </span>
    </>
  );
}

/** Ink, the first labels, how many a conversation has, and where a message is. */
function Marks({
  row,
  view,
  setup,
  now,
  most,
}: Pick<RowItemProps, 'row' | 'view' | 'setup' | 'now'> & { most: number }) {
  const { whole } = row;
  return (
    <>
      {row.ink && <InkMark ink={row.ink} />}
      {row.labels.slice(0, most).map((label) => (
        <InkTag key={label} id={label} setup={setup} />
      ))}
      {whole && !row.tray && whole.received + whole.own > 1 && (
        <span className="quiet shrink-0 text-xs tabular-nums">{conversationWords(whole)}</span>
      )}
      {view.kind !== 'place' && <span className="quiet shrink-0 text-xs">{placeName(row.place, setup.folders)}</span>}
      {row.until !== null && (
        <span className="quiet shrink-0 text-xs" title={`It waits until ${exactTime(row.until)}`}>
          until {dueWords(row.until, now)}
        </span>
      )}
      {row.back !== null && (
        <span className="shrink-0 text-xs font-semibold text-primary" title="It was put off, and came back">
          back
        </span>
      )}
      {row.deletedOn !== null && (
        <span
          className="quiet shrink-0 text-xs"
          title="Deleted for good on this day at the earliest: so many days must have been seen to pass"
        >
          until {dayOf(row.deletedOn)}
        </span>
      )}
    </>
  );
}

/** One message or conversation in the list: two lines or one, the sealed corner where something is unread. */
export const RowItem = memo(function RowItem(props: RowItemProps) {
  const { row, index, view, setup, now, open, ticked, related, onPress, onTick } = props;
  const density = usePreferences((s) => s.density);
  const rowFirst = usePreferences((s) => s.rowFirst);
  const [under, setUnder] = useState(false);
  const target = rowTarget(row);
  const { whole } = row;
  const unread = whole ? whole.unread > 0 : row.unread;
  const weight = unread ? 'font-bold' : '';
  const subject = row.tray ? row.tray.name : row.subject || 'No subject';
  // What is half ticked is ticked whole by the next press.
  const tickOn = ticked !== 'all';
  const swipe = useSwipe(view, target, () => onTick(row, index, tickOn, false));
  const names = (
    <span className={`min-w-0 truncate ${whole && whole.people.length > 1 ? '' : weight}`} dir="auto">
      {people(row)}
    </span>
  );
  const inTray = trayWords(row);
  const what = inTray ? (
    <span className={`min-w-0 truncate ${weight}`} dir="auto">
      {inTray}
    </span>
  ) : (
    <span className="min-w-0 truncate" dir="auto">
      <span className={weight}>
        <Marked text={subject} part="subject" />
      </span>
      {density === 'roomy' && row.preview && (
        <span className="quiet">
          {' '}
          <Marked text={row.preview} part="text" />
        </span>
      )}
    </span>
  );
  const signs = <Signs row={row} view={view} target={target} now={now} related={related} under={under} />;
  const marks = <Marks row={row} view={view} setup={setup} now={now} most={density === 'tight' ? 1 : 3} />;
  const [first, second] = rowFirst === 'people' ? [names, what] : [what, names];
  return (
    <div
      role="row"
      id={`row-${row.id}`}
      aria-rowindex={index + 1}
      aria-selected={ticked !== 'none'}
      aria-current={open || undefined}
      onPointerEnter={(event) => setUnder(event.pointerType === 'mouse')}
      onPointerLeave={() => setUnder(false)}
      {...swipe.handlers}
      style={swipe.style}
      data-swipe={swipe.word}
      className={`relative flex h-full cursor-pointer items-start gap-2 border-b border-base-300 pr-3 pl-2 ${
        density === 'tight' ? 'py-1' : 'py-2'
      } ${unread ? 'sealed' : ''} ${related ? 'related' : ''} ${row.ink ? `inked ink-${row.ink}` : ''} ${
        open ? 'bg-base-300' : ticked !== 'none' ? 'bg-base-200' : 'hover:bg-base-200'
      }`}
      onClick={(event) => onPress(event, row, index)}
    >
      <div role="gridcell" className="pt-0.5 pl-1">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          tabIndex={-1}
          checked={ticked === 'all'}
          ref={(box) => {
            if (box) box.indeterminate = ticked === 'some';
          }}
          aria-label={`Tick “${subject}”`}
          onClick={(e) => {
            e.stopPropagation();
            onTick(row, index, tickOn, e.shiftKey);
          }}
          onChange={() => undefined}
        />
      </div>
      <div role="gridcell" className="min-w-0 flex-1">
        {unread && <span className="sr-only">Unread.</span>}
        {density === 'tight' ? (
          <div className="flex items-baseline gap-2 text-sm">
            <span className="flex w-2/5 shrink-0">{first}</span>
            <span className="flex min-w-0 flex-1">{second}</span>
            {marks}
            {signs}
          </div>
        ) : (
          <>
            <div className="flex items-baseline gap-2">
              <span className="flex min-w-0 flex-1">{first}</span>
              {signs}
            </div>
            <div className="flex items-baseline gap-2 text-sm">
              <span className="flex min-w-0 flex-1">{second}</span>
              {marks}
            </div>
          </>
        )}
      </div>
    </div>
  );
});
