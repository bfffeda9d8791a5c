import { FolderDown, Paperclip } from 'lucide-react';
import { useState } from 'react';
import { count } from '../../core/text/sentences';
import type { AttachmentInfo } from '../../core/mail/body';
import { mailroom } from '../../mailroom/client';
import { say } from '../state/desk';
import { saveFile } from '../ui/save';
import { saveAll } from './saveAll';
import { sizeWords } from '../../core/text/time';

interface AttachmentProps {
  /** The message that it came with, and its position there. */
  id: number;
  index: number;
  attachment: AttachmentInfo;
  /** Who sent it, where several messages are listed together. */
  from?: string;
}

/** An attachment, saved with one press. */
export function Attachment({ id, index, attachment, from }: AttachmentProps) {
  const save = async () => {
    const file = await mailroom.attachment(id, index);
    if (!file) return say({ text: 'The attachment can’t be read from storage any more.', tone: 'trouble' });
    // Whatever type the sender claims, the browser is only to save it.
    saveFile(new Blob([Uint8Array.from(file.bytes)], { type: 'application/octet-stream' }), file.name);
    say({ text: `Saved “${file.name}”.`, tone: 'done' });
  };
  return (
    <button
      className="btn h-auto min-h-7 max-w-72 py-1 font-normal btn-outline btn-xs"
      onClick={() => void save()}
      title={`Save ${attachment.name ?? 'unnamed attachment'} (${attachment.type})${from ? `, from ${from}` : ''}`}
    >
      <Paperclip size={13} aria-hidden />
      <span className="truncate">{attachment.name ?? 'Unnamed'}</span>
      <span className="quiet whitespace-nowrap">{sizeWords(attachment.size)}</span>
    </button>
  );
}

/** Saves several attachments with one press. */
export function SaveAll({ list }: { list: readonly { id: number; index: number }[] }) {
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

/** The attachments of a message. */
export function Attachments({ id, list }: { id: number; list: readonly AttachmentInfo[] }) {
  const [all, setAll] = useState(false);
  const shown = list.slice(0, all ? mostShown : firstShown);
  return (
    <ul aria-label="Attachments" className="flex flex-wrap gap-2">
      {shown.map((attachment, index) => (
        <li key={index}>
          <Attachment id={id} index={index} attachment={attachment} />
        </li>
      ))}
      <li className="empty:hidden">
        <SaveAll list={list.map((_, index) => ({ id, index }))} />
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
  );
}
