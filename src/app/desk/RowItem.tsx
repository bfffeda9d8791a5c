import { Flag, Paperclip, TriangleAlert } from 'lucide-react';
import type { MouseEvent } from 'react';
import type { Setup } from '../../core/line/setup';
import type { Row, View } from '../../mailroom/api';
import { placeName } from '../../core/mail/place';
import { InkTag } from '../ui/InkTag';
import { dayOf, exactTime, shortTime } from '../ui/time';

interface RowItemProps {
  row: Row;
  index: number;
  view: View;
  setup: Setup;
  now: number;
  open: boolean;
  ticked: boolean;
  onOpen: (event: MouseEvent) => void;
  onTick: (on: boolean, range: boolean) => void;
}

/** Who a row is about: the sender, or for mail of one's own the recipients. */
function people(row: Row): string {
  if (row.place === 'sent' || row.place === 'drafts') {
    const names = row.to.map((a) => a.name || a.address).join(', ');
    return `To ${names || 'nobody named'}`;
  }
  return row.from.name || row.from.address || 'No sender';
}

/** One message in the list: two lines, the sealed corner where it is unread. */
export function RowItem({ row, index, view, setup, now, open, ticked, onOpen, onTick }: RowItemProps) {
  const weight = row.unread ? 'font-bold' : '';
  const subject = row.subject || 'No subject';
  return (
    <div
      role="row"
      id={`row-${row.id}`}
      aria-rowindex={index + 1}
      aria-selected={ticked}
      aria-current={open || undefined}
      className={`relative flex h-full cursor-pointer items-start gap-2 border-b border-base-300 py-2 pr-3 pl-2 ${
        row.unread ? 'sealed' : ''
      } ${open ? 'bg-base-300' : ticked ? 'bg-base-200' : 'hover:bg-base-200'}`}
      onClick={onOpen}
    >
      <div role="gridcell" className="pt-0.5 pl-1">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          tabIndex={-1}
          checked={ticked}
          aria-label={`Tick “${subject}”`}
          onClick={(e) => {
            e.stopPropagation();
            onTick(!ticked, e.shiftKey);
          }}
          onChange={() => undefined}
        />
      </div>
      <div role="gridcell" className="min-w-0 flex-1">
        <div className="flex items-baseline gap-2">
          {row.unread && <span className="sr-only">Unread.</span>}
          <span className={`min-w-0 flex-1 truncate ${weight}`} dir="auto">
            {people(row)}
          </span>
          {row.damage !== null && (
            <span title={`Damaged: ${row.damage}`} className="text-accent">
              <TriangleAlert size={14} aria-label="Damaged" />
            </span>
          )}
          {row.attachments > 0 && (
            <Paperclip
              size={14}
              className="quiet shrink-0"
              aria-label={row.attachments === 1 ? '1 attachment' : `${row.attachments} attachments`}
            />
          )}
          {row.flagged && <Flag size={14} className="shrink-0 text-accent" fill="currentColor" aria-label="Flagged" />}
          <time
            className="quiet w-16 shrink-0 text-right text-sm tabular-nums"
            dateTime={new Date(row.date).toISOString()}
            title={exactTime(row.date)}
          >
            {shortTime(row.date, now)}
          </time>
        </div>
        <div className="flex items-baseline gap-2 text-sm">
          <span className="min-w-0 flex-1 truncate" dir="auto">
            <span className={weight}>{subject}</span>
            {row.preview && <span className="quiet"> {row.preview}</span>}
          </span>
          {row.labels.slice(0, 3).map((label) => (
            <InkTag key={label} id={label} setup={setup} />
          ))}
          {view.kind !== 'place' && <span className="quiet shrink-0">{placeName(row.place, setup.folders)}</span>}
          {row.deletedOn !== null && (
            <span className="quiet shrink-0" title="Deleted for good on this day">
              until {dayOf(row.deletedOn)}
            </span>
          )}
        </div>
      </div>
    </div>
  );
}
