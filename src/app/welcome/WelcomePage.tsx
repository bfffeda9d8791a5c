import { useState } from 'react';
import { mailroom } from '../../mailroom/client';
import { lastSeen } from '../state/lastSeen';
import { refresh } from '../state/overview';
import { reasonOf } from '../../core/text/sentences';
import { Dropped, forgetDropped } from './Dropped';

/** The first run: the demo mailbox, or one's own mail. */
export function WelcomePage() {
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const [seen, setSeen] = useState(lastSeen);
  const begin = async (kind: 'demo' | 'own'): Promise<boolean> => {
    setBusy(true);
    setError(null);
    try {
      const result = await mailroom.begin(kind);
      if (result.ok) {
        forgetDropped();
        await refresh();
      } else setError(result.error);
      return result.ok;
    } catch (reason) {
      setError(reasonOf(reason));
      return false;
    } finally {
      setBusy(false);
    }
  };
  return (
    <main className="mx-auto flex h-full max-w-3xl flex-col justify-center-safe gap-6 overflow-y-auto p-6">
      <div>
        <h1 className="text-3xl font-bold tracking-tight">Wide Sort</h1>
        <p className="mt-2 max-w-prose text-lg">
          Every message rides one sorting line: Register, Junk filter, Rules, Inbox. Each station says what it did and
          why, and whatever was done can be undone.
        </p>
      </div>
      {seen && <Dropped seen={seen} busy={busy} begin={() => begin('own')} onPutAway={() => setSeen(null)} />}
      <div className="grid gap-4 sm:grid-cols-2">
        <section className="flex flex-col items-start gap-3 rounded-box border border-base-300 bg-base-200 p-5">
          <h2 className="text-lg font-semibold">Look around first</h2>
          <p>
            The operations desk of a made-up ferry company: 2,500 messages of three months, and more arriving while you
            look.
          </p>
          <button className="btn mt-auto btn-primary" disabled={busy} onClick={() => void begin('demo')}>
            Open the demo mailbox
          </button>
        </section>
        <section className="flex flex-col items-start gap-3 rounded-box border border-base-300 bg-base-200 p-5">
          <h2 className="text-lg font-semibold">Bring in your mail</h2>
          <p>Files of mail that another program saved: .mbox, or single messages as .eml. They stay in this browser.</p>
          <button className="btn mt-auto btn-primary" disabled={busy} onClick={() => void begin('own')}>
            Start with my own mail
          </button>
        </section>
      </div>
      {error && (
        <p role="alert" className="border-l-4 border-error bg-base-200 px-3 py-2">
          {error}
        </p>
      )}
      <p className="quiet text-sm">
        Your mail is kept in this browser and sent nowhere. You can take it out again at any time, byte for byte.
      </p>
    </main>
  );
}
