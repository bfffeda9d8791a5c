import { SquarePen } from 'lucide-react';
import { openDraft, useDrafts } from '../state/drafts';

/** The drafts that answer or forward some messages: they stand in their conversation, too. */
export function DraftsHere({ members }: { members: readonly number[] }) {
  const rows = useDrafts((s) => s.rows);
  const here = rows.filter(({ answers }) => answers.some((id) => members.includes(id)));
  if (here.length === 0) return null;
  return (
    <ul aria-label="Drafts of this conversation" className="m-3 flex flex-col gap-1">
      {here.map(({ id, to, words, due }) => (
        <li
          key={id}
          className="flex items-center gap-2 rounded border border-dashed border-base-300 px-3 py-1.5 text-sm"
        >
          <SquarePen size={15} aria-hidden className="shrink-0" />
          <span className="min-w-0 flex-1 truncate" dir="auto">
            Draft to {to || 'nobody yet'}: {words || 'nothing typed yet'}
          </span>
          {due === null && (
            <button className="btn btn-ghost btn-xs" onClick={() => openDraft(id)}>
              Go on
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
