import { TriangleAlert } from 'lucide-react';
import type { Guard } from '../../core/senders/guards';

interface GuardsProps {
  list: readonly Guard[];
  sure: boolean;
  onSure: (sure: boolean) => void;
}

/** What speaks against an entry, and whom it would hit; it is made only once that was said yes to. */
export function Guards({ list, sure, onSure }: GuardsProps) {
  if (list.length === 0) return null;
  return (
    <section aria-label="Before you block it" className="flex gap-2 border-l-4 border-error bg-base-200 px-3 py-2">
      <TriangleAlert size={18} aria-hidden className="mt-0.5 shrink-0 text-error" />
      <div className="min-w-0">
        {list.map((guard) => (
          <div key={guard.says} className="mb-1">
            <p className="font-semibold">{guard.says}</p>
            {guard.people.length > 0 && (
              <ul
                aria-label={guard.says}
                tabIndex={0}
                className="ml-4 max-h-32 list-disc overflow-y-auto text-sm [overflow-wrap:anywhere]"
              >
                {guard.people.map(({ name, address }) => (
                  <li key={address}>
                    {name && `${name} `}
                    <span className="font-mono">{address}</span>
                  </li>
                ))}
              </ul>
            )}
          </div>
        ))}
        <label className="mt-1 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={sure}
            onChange={(e) => onSure(e.target.checked)}
          />
          Block it all the same
        </label>
      </div>
    </section>
  );
}
