import { useEffect, useState } from 'react';
import { askToKeep, lookWhetherKept, useKeeping } from '../state/keeping';
import { useNow } from '../ui/useNow';
import { useMailbox } from '../state/overview';
import { sizeWords } from '../../core/text/time';

/** How often the browser is asked how much it stores, in milliseconds. */
const countedAnew = 3_000;

/** How much this browser stores for the page, and whether it has promised to keep it. */
export function StorageSection() {
  const [used, setUsed] = useState<number | null>(null);
  const { kept, refused } = useKeeping();
  // Asked again whenever the mailbox changed, and after a while: the browser counts later than it writes.
  const revision = useMailbox((s) => s.revision);
  const now = useNow(countedAnew);
  useEffect(() => {
    let current = true;
    void lookWhetherKept();
    void navigator.storage.estimate().then(({ usage = 0 }) => current && setUsed(usage));
    return () => {
      current = false;
    };
  }, [revision, now]);
  if (used === null || kept === null) return null;
  return (
    <section aria-labelledby="storage" className="flex flex-col items-start gap-3">
      <h2 id="storage" className="text-lg font-semibold">
        Storage
      </h2>
      <p>
        This browser says that Wide Sort stores {sizeWords(used)} in it, for the mail, what it is found by, the page
        itself and some megabytes held back for a full disk; after much was deleted it may say so only later.{' '}
        {kept
          ? 'The browser has promised to keep it.'
          : 'The browser may delete all of it when the disk runs low, even while it is closed. Ask it to keep it, or save your mail as .mbox now and then.'}
      </p>
      {!kept && (
        <button className="btn btn-outline btn-sm" onClick={() => void askToKeep()}>
          Ask the browser to keep it
        </button>
      )}
      {refused && !kept && (
        <p role="status">
          The browser did not promise it. Some do once a page is used often or bookmarked; until then, save your mail.
        </p>
      )}
    </section>
  );
}
