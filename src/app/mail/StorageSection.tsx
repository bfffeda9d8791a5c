import { useEffect, useState } from 'react';
import { useMailbox } from '../state/overview';
import { sizeWords } from '../../core/text/time';

interface StorageState {
  used: number;
  kept: boolean;
}

/** How much this browser stores for the page, and whether it has promised to keep it. */
export function StorageSection() {
  const [state, setState] = useState<StorageState | null>(null);
  const [refused, setRefused] = useState(false);
  const look = async () => {
    const [{ usage = 0 }, kept] = await Promise.all([navigator.storage.estimate(), navigator.storage.persisted()]);
    return { used: usage, kept };
  };
  // Asked again whenever the mailbox changed: what came in and what was deleted counts.
  const revision = useMailbox((s) => s.revision);
  useEffect(() => {
    let current = true;
    void look().then((now) => current && setState(now));
    return () => {
      current = false;
    };
  }, [revision]);
  if (!state) return null;
  const ask = async () => {
    setRefused(!(await navigator.storage.persist()));
    setState(await look());
  };
  return (
    <section aria-labelledby="storage" className="flex flex-col items-start gap-3">
      <h2 id="storage" className="text-lg font-semibold">
        Storage
      </h2>
      <p>
        This browser says that Wide Sort stores {sizeWords(state.used)} in it, for the mail, what it is found by and the
        page itself; after much was deleted it may say so only later.{' '}
        {state.kept
          ? 'The browser has promised to keep it.'
          : 'The browser may delete it when the disk runs low. Ask it to keep it, or save your mail as .mbox now and then.'}
      </p>
      {!state.kept && (
        <button className="btn btn-outline btn-sm" onClick={() => void ask()}>
          Ask the browser to keep it
        </button>
      )}
      {refused && !state.kept && (
        <p role="status">
          The browser did not promise it. Some do once a page is used often or bookmarked; until then, save your mail.
        </p>
      )}
    </section>
  );
}
