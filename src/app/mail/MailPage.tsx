import { FolderInput, HardDriveDownload } from 'lucide-react';
import { useRef, useState, type DragEvent } from 'react';
import { measuredMessages, mostMessages } from '../../core/mail/mailboxSize';
import { placeName, type Place } from '../../core/mail/place';
import type { Selection, View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { forgetDesk, useDesk } from '../state/desk';
import { checkPost } from '../state/post';
import { UndoSpot } from '../desk/StampBar';
import { forgetSeen } from '../state/lastSeen';
import { forgetPreferences } from '../state/preferences';
import { forgetAllDone } from '../state/undoing';
import { forgetCopies, forgetOldAnswers } from '../state/draftCopies';
import { openDraft, refreshDrafts } from '../state/drafts';
import { refresh, useMailbox } from '../state/overview';
import { Dialog } from '../ui/Dialog';
import { Page } from '../ui/Page';
import { saveExport } from '../ui/exported';
import { exactTime } from '../../core/text/time';
import { labelName, movablePlaces, placePath } from '../ui/naming';
import { count, messages } from '../../core/text/sentences';
import { bringIn, droppedFiles } from './importRun';
import { SetupSection } from './SetupSection';
import { StorageSection } from './StorageSection';

/** Mail in and out: files of mail, the post office, and starting afresh. */
export function MailPage() {
  const overview = useMailbox((s) => s.overview);
  const notice = useDesk((s) => s.notice);
  if (!overview) return null;
  return (
    <Page title="Mail in and out" acts={<UndoSpot />}>
      <p
        role="status"
        aria-live="polite"
        className={`mb-3 min-h-5 text-sm ${notice?.tone === 'trouble' ? 'font-semibold text-error' : 'quiet'}`}
      >
        {notice?.text ?? ''}
      </p>
      <div className="flex max-w-3xl flex-col gap-8">
        <ImportSection />
        <ExportSection />
        {overview.post.on && <PostSection />}
        <SetupSection />
        <StorageSection />
        <AfreshSection />
      </div>
    </Page>
  );
}

function ImportSection() {
  const overview = useMailbox((s) => s.overview);
  const importing = useMailbox((s) => s.importing) !== null;
  const [target, setTarget] = useState<Place | 'line'>('line');
  const [over, setOver] = useState(false);
  const picker = useRef<HTMLInputElement>(null);
  if (!overview) return null;
  const drop = async (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void bringIn(await droppedFiles(event.dataTransfer), target);
  };
  return (
    <section aria-labelledby="mail-in">
      <h2 id="mail-in" className="mb-2 text-lg font-semibold">
        Bring mail in
      </h2>
      <div
        className={`flex flex-col items-start gap-3 rounded-box border-2 border-dashed p-5 ${over ? 'border-primary bg-base-200' : 'border-base-300'}`}
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(e) => void drop(e)}
      >
        <p>
          Drop .mbox or .eml files here, a .zip of them, or whole folders. A file that was brought in before adds
          nothing; a damaged message is kept as it is and listed as damaged.
        </p>
        <p className="quiet text-sm">
          Tried with up to {messages(measuredMessages)}; while that many come in, this page needs 3 GB of memory. More
          than {messages(mostMessages)} it does not take in.
        </p>
        <label className="flex flex-wrap items-center gap-2">
          Put the messages
          <select
            className="select w-auto select-sm"
            value={target}
            onChange={(e) => {
              const { value } = e.target;
              setTarget(movablePlaces(overview.setup).find((p) => p === value) ?? (value === 'sent' ? 'sent' : 'line'));
            }}
          >
            <option value="line">on the sorting line, like arrivals</option>
            {[...movablePlaces(overview.setup), 'sent' as const].map((place) => (
              <option key={place} value={place}>
                straight into {placeName(place, overview.setup.folders)}
              </option>
            ))}
          </select>
        </label>
        <button className="btn btn-primary" disabled={importing} onClick={() => picker.current?.click()}>
          <FolderInput size={16} aria-hidden /> Choose files
        </button>
        <input
          ref={picker}
          type="file"
          multiple
          hidden
          data-testid="mail-files"
          onChange={(e) => {
            const files = [...(e.target.files ?? [])];
            e.target.value = '';
            void bringIn(files, target);
          }}
        />
      </div>
    </section>
  );
}

function ExportSection() {
  const overview = useMailbox((s) => s.overview);
  const [what, setWhat] = useState('inbox');
  const [busy, setBusy] = useState(false);
  if (!overview) return null;
  const { setup, places, labels } = overview;
  const options: { key: string; name: string; total: number; view: View }[] = [
    ...places.map(({ place, total }) => ({
      key: place,
      name: placePath(place, setup),
      total,
      view: { kind: 'place' as const, place },
    })),
    ...setup.labels.map(({ id }) => ({
      key: `label:${id}`,
      name: `Label ${labelName(id, setup)}`,
      total: labels.find((l) => l.label === id)?.total ?? 0,
      view: { kind: 'label' as const, label: id },
    })),
  ];
  const chosen = options.find((o) => o.key === what) ?? options[0];
  const save = async (format: 'mbox' | 'eml') => {
    setBusy(true);
    const selection: Selection = { view: chosen.view };
    const result = await mailroom.exportMail(selection, format);
    setBusy(false);
    saveExport(result);
  };
  return (
    <section aria-labelledby="mail-out" className="flex flex-col items-start gap-3">
      <h2 id="mail-out" className="text-lg font-semibold">
        Take mail out
      </h2>
      <p>Every message leaves as the bytes that came in. Single messages are saved from the desk.</p>
      <label className="flex items-center gap-2">
        What
        <select className="select w-auto select-sm" value={chosen.key} onChange={(e) => setWhat(e.target.value)}>
          {options.map((o) => (
            <option key={o.key} value={o.key}>
              {o.name} ({count(o.total)})
            </option>
          ))}
        </select>
      </label>
      <div className="flex flex-wrap gap-2">
        <button
          className="btn btn-outline btn-sm"
          disabled={busy || chosen.total === 0}
          onClick={() => void save('mbox')}
        >
          <HardDriveDownload size={16} aria-hidden /> Save as one .mbox
        </button>
        <button
          className="btn btn-outline btn-sm"
          disabled={busy || chosen.total === 0}
          onClick={() => void save('eml')}
        >
          <HardDriveDownload size={16} aria-hidden /> Save as .eml files
        </button>
        {busy && <span className="quiet self-center">Gathering the messages …</span>}
      </div>
    </section>
  );
}

function PostSection() {
  const post = useMailbox((s) => s.overview?.post);
  if (!post) return null;
  return (
    <section aria-labelledby="post-office" className="flex flex-col items-start gap-3">
      <h2 id="post-office" className="text-lg font-semibold">
        Post office
      </h2>
      <p>
        A stand-in that comes with the server: it brings made-up mail while this page is open.
        {post.lastChecked !== null && ` Last checked ${exactTime(post.lastChecked)}.`}
      </p>
      {post.error && <p className="border-l-4 border-error bg-base-200 px-3 py-2">{post.error}</p>}
      <div className="flex flex-wrap items-center gap-3">
        <button className="btn btn-outline btn-sm" onClick={() => void checkPost()}>
          Check now
        </button>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="toggle toggle-sm"
            checked={!post.paused}
            onChange={(e) => void mailroom.setPostRate(post.perMinute, !e.target.checked)}
          />
          New mail arrives
        </label>
        <label className="flex items-center gap-2">
          Arrivals a minute
          <input
            type="range"
            className="range w-40 range-xs"
            min={0}
            max={30}
            value={post.perMinute}
            disabled={post.paused}
            onChange={(e) => void mailroom.setPostRate(Number(e.target.value), post.paused)}
          />
          <output className="w-6 tabular-nums">{post.perMinute}</output>
        </label>
      </div>
    </section>
  );
}

async function eraseAll(): Promise<void> {
  // Before and after: what is erased by the person is not missed, in no tab.
  forgetSeen();
  await mailroom.eraseAll();
  forgetSeen();
  forgetCopies();
  forgetOldAnswers();
  openDraft(null);
  await refreshDrafts();
  forgetAllDone();
  forgetPreferences();
  forgetDesk();
  await refresh();
}

function AfreshSection() {
  const total = useMailbox((s) => s.overview?.total ?? 0);
  const [asking, setAsking] = useState(false);
  return (
    <section aria-labelledby="afresh" className="flex flex-col items-start gap-3">
      <h2 id="afresh" className="text-lg font-semibold">
        Start afresh
      </h2>
      <p>Deletes everything that Wide Sort keeps in this browser: messages, Register, rules, Logbook.</p>
      <button className="btn btn-outline btn-sm btn-error" onClick={() => setAsking(true)}>
        Delete everything …
      </button>
      {asking && (
        <Dialog title={`Delete ${messages(total)} for good?`} onClose={() => setAsking(false)}>
          <p>
            All messages, the Register, rules, labels and the Logbook go from this browser. This cannot be undone. Save
            what you want to keep first.
          </p>
          <div className="mt-4 flex justify-end gap-2">
            <button className="btn btn-sm" onClick={() => setAsking(false)}>
              Keep it
            </button>
            <button
              className="btn btn-sm btn-error"
              onClick={() => {
                setAsking(false);
                void eraseAll();
              }}
            >
              Delete for good
            </button>
          </div>
        </Dialog>
      )}
    </section>
  );
}
