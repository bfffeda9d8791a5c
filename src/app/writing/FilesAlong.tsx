import { Paperclip, X } from 'lucide-react';
import { useRef } from 'react';
import type { DraftContent } from '../../mailroom/border/drafts';
import { mostBytes } from '../../core/writing/draft';
import { sizeWords } from '../../core/text/time';

interface Props {
  files: DraftContent['files'];
  onPick: (files: File[]) => void;
  onTakeOff: (id: string) => void;
}

/** What goes along with a message: each with its size, and how much is left to the limit. */
export function FilesAlong({ files, onPick, onTakeOff }: Props) {
  const picker = useRef<HTMLInputElement>(null);
  const attached = files.filter(({ contentId }) => !contentId);
  const total = files.reduce((sum, { size }) => sum + size, 0);
  return (
    <div className="flex flex-col gap-1">
      <div className="flex flex-wrap items-center gap-2">
        <button type="button" className="btn btn-ghost btn-xs" onClick={() => picker.current?.click()}>
          <Paperclip size={14} aria-hidden /> Attach a file
        </button>
        <input
          ref={picker}
          type="file"
          hidden
          multiple
          aria-label="Files to attach"
          onChange={(event) => {
            onPick([...(event.target.files ?? [])]);
            event.target.value = '';
          }}
        />
        {total > 0 && (
          <span className={`text-xs ${total > mostBytes ? 'font-semibold text-error' : 'quiet'}`}>
            {sizeWords(total)} of at most {sizeWords(mostBytes)}
            {total > mostBytes && ': take something off, or it can’t be sent'}
          </span>
        )}
      </div>
      {attached.length > 0 && (
        <ul aria-label="Goes along" className="flex flex-wrap gap-1">
          {attached.map(({ id, name, size }) => (
            <li key={id} className="flex max-w-full items-center gap-1 rounded border border-base-300 pl-2 text-sm">
              <span className="truncate" dir="auto">
                {name}
              </span>
              <span className="quiet shrink-0 text-xs">{sizeWords(size)}</span>
              <button
                type="button"
                className="btn btn-square btn-ghost btn-xs"
                aria-label={`Take ${name} off`}
                onClick={() => onTakeOff(id)}
              >
                <X size={13} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
