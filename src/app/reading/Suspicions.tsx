import { ShieldAlert } from 'lucide-react';
import type { Suspicion } from '../../core/senders/suspicion';

/** What looks false about a message, and that its links are dead for it. */
export function Suspicions({ list, dead }: { list: readonly Suspicion[]; dead: boolean }) {
  if (list.length === 0 && !dead) return null;
  return (
    <section
      aria-label="What looks false"
      className="mx-4 mt-3 flex gap-2 border-l-4 border-error bg-base-200 px-3 py-2 text-sm"
    >
      <ShieldAlert size={18} aria-hidden className="mt-0.5 shrink-0 text-error" />
      <div className="min-w-0">
        <ul className="[overflow-wrap:anywhere]">
          {list.map(({ says }) => (
            <li key={says}>{says}</li>
          ))}
        </ul>
        {dead && <p>Links in it are dead; each shows where it would go.</p>}
      </div>
    </section>
  );
}
