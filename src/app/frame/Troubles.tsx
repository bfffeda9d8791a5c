import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { mailroom } from '../../mailroom/client';
import { askToKeep, lookWhetherKept, useKeeping } from '../state/keeping';
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
      <p className="min-w-64 flex-1">
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

/** The disk is full: what that means for the mail that is here, and what to do before the browser is closed. */
export function DiskFull() {
  const kept = useKeeping((s) => s.kept);
  useEffect(() => void lookWhetherKept(), []);
  if (kept === null) return null;
  return (
    <div role="alert" className="flex flex-wrap items-center gap-3 bg-error px-4 py-2 text-error-content">
      <p className="min-w-64 flex-1">
        <strong>The disk is full.</strong> What was done is kept, but nothing more can be changed until there is room.{' '}
        {kept
          ? 'What is here stays: the browser has promised to keep it.'
          : 'The browser has not promised to keep your mail: when it is started anew it may throw all of it away. Free space first, or save your mail to another disk.'}
      </p>
      {!kept && (
        <>
          <button className="btn btn-sm" onClick={() => void askToKeep()}>
            Ask the browser to keep it
          </button>
          <Link className="btn btn-sm" to="/mail">
            Save the mail
          </Link>
        </>
      )}
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
