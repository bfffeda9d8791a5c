import { Eye, FolderDown, Paperclip } from 'lucide-react';
import { useState } from 'react';
import { count } from '../../core/text/sentences';
import type { AttachmentInfo } from '../../core/mail/body';
import { attachmentName, maybeSeen } from '../../core/mail/attachmentKind';
import { AttachmentSeen } from './AttachmentSeen';
import { mailroom } from '../../mailroom/client';
import { say } from '../state/desk';
import { saveFile } from '../ui/save';
import { saveAll } from './saveAll';
import { sizeWords } from '../../core/text/time';

/** An attachment in a list: the message that it came with, and its position there. */
export interface Listed {
  id: number;
  index: number;
  attachment: AttachmentInfo;
  /** Who sent it, where several messages are listed together. */
  from?: string;
}

async function save({ id, index }: Listed): Promise<void> {
  const file = await mailroom.attachment(id, index);
  if (!file) return say({ text: 'The attachment can’t be read from storage any more.', tone: 'trouble' });
  // Whatever type the sender claims, the browser is only to save it.
  saveFile(new Blob([Uint8Array.from(file.bytes)], { type: 'application/octet-stream' }), file.name);
  say({ text: `Saved “${file.name}”.`, tone: 'done' });
}

interface AttachmentProps {
  one: Listed;
  looked: boolean;
  onLook: () => void;
}

/** An attachment, saved with one press; with another it is looked at, where there is something to see. */
function Attachment({ one, looked, onLook }: AttachmentProps) {
  const { attachment, index, from } = one;
  const name = attachmentName(attachment, index);
  return (
    <span className="join max-w-80">
      <button
        className="btn join-item h-auto min-h-7 min-w-0 shrink py-1 font-normal btn-outline btn-xs"
        onClick={() => void save(one)}
        title={`Save ${name} (${attachment.type})${from ? `, from ${from}` : ''}`}
      >
        <Paperclip size={13} aria-hidden />
        <span className="truncate">{name}</span>
        <span className="quiet whitespace-nowrap">{sizeWords(attachment.size)}</span>
      </button>
      {maybeSeen(attachment) && (
        <button
          className="btn join-item h-auto min-h-7 btn-outline btn-xs"
          aria-expanded={looked}
          onClick={onLook}
          aria-label={`Look at ${name}`}
          title="Look at it without saving it"
        >
          <Eye size={14} aria-hidden />
        </button>
      )}
    </span>
  );
}

/** Saves several attachments with one press. */
function SaveAll({ list }: { list: readonly { id: number; index: number }[] }) {
  if (list.length < 2) return null;
  return (
    <button
      className="btn min-h-7 btn-ghost btn-xs"
      onClick={() => void saveAll(list)}
      title={`Save all ${count(list.length)} attachments as one .zip`}
    >
      <FolderDown size={14} aria-hidden /> Save all
    </button>
  );
}

/** So many are shown before one asks for all. */
const firstShown = 40;
/** More buttons than these no page holds. */
const mostShown = 2_000;

interface AttachmentsProps {
  label: string;
  list: readonly Listed[];
  /** For where there is little room. */
  className?: string;
}

/** Attachments, of a message or of a conversation; one of them looked at below. */
export function Attachments({ label, list, className = '' }: AttachmentsProps) {
  const [all, setAll] = useState(false);
  const [looked, setLooked] = useState<string | null>(null);
  const shown = list.slice(0, all ? mostShown : firstShown);
  const keyOf = ({ id, index }: Listed) => `${id} ${index}`;
  const seen = list.find((one) => keyOf(one) === looked);
  return (
    <>
      <ul aria-label={label} className={`flex flex-wrap gap-2 ${className}`}>
        {shown.map((one) => (
          <li key={keyOf(one)}>
            <Attachment
              one={one}
              looked={looked === keyOf(one)}
              onLook={() => setLooked(looked === keyOf(one) ? null : keyOf(one))}
            />
          </li>
        ))}
        <li className="empty:hidden">
          <SaveAll list={list} />
        </li>
        {!all && list.length > firstShown && (
          <li>
            <button className="btn btn-outline btn-xs" onClick={() => setAll(true)}>
              {list.length > mostShown
                ? `Show ${count(mostShown)} of all ${count(list.length)} attachments`
                : `Show all ${count(list.length)} attachments`}
            </button>
          </li>
        )}
      </ul>
      {seen && <AttachmentSeen key={looked} {...seen} onSave={() => void save(seen)} onClose={() => setLooked(null)} />}
    </>
  );
}
