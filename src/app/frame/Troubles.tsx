import { useState } from 'react';
import { mailroom } from '../../mailroom/client';
import { saveExport } from '../ui/exported';
import { saveFile } from '../ui/save';

/** Saves what is in memory when nothing is stored any more: what is left of the mail, and the setup. */
async function saveMemory(): Promise<void> {
  saveExport(await mailroom.exportMemory());
  saveFile(new Blob([await mailroom.exportSetup()], { type: 'application/json' }), 'setup.json');
}

/** The browser dropped what it stored: this stays in sight, with what can still be done. */
export function StorageLost() {
  return (
    <div role="alert" className="flex flex-wrap items-center gap-3 bg-error px-4 py-2 text-error-content">
      <p className="min-w-0 flex-1">
        <strong>The browser has dropped all that it stored for this page.</strong> Nothing is kept any more, neither
        what was here nor what you do now. Who wrote, when, what about and the first words of each message are still in
        memory: save them before you close this page.
      </p>
      <button className="btn btn-sm" onClick={() => void saveMemory()}>
        Save what is left, and the setup
      </button>
    </div>
  );
}

/** What went wrong behind the scenes, told once, until the person puts it away. */
export function Troubles({ list }: { list: readonly string[] }) {
  const [seen, setSeen] = useState(0);
  if (list.length <= seen) return null;
  return (
    <div role="alert" className="flex items-start gap-3 bg-error px-4 py-2 text-error-content">
      <ul className="flex-1">
        {list.slice(seen).map((trouble, i) => (
          <li key={i}>{trouble}</li>
        ))}
      </ul>
      <button className="btn btn-xs" onClick={() => setSeen(list.length)}>
        Put away
      </button>
    </div>
  );
}
