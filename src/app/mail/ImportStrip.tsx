import { mailroom } from '../../mailroom/client';
import { useKeeping } from '../state/keeping';
import { useMailbox } from '../state/overview';
import { sizeWords } from '../../core/text/time';
import { count, messages } from '../../core/text/sentences';
import { useState } from 'react';
import { Link } from 'react-router';
import { bringIn } from './importRun';

/** An import that was cut off by closing the page: told until it is gone on with, or put away. */
function CutOff() {
  const cutOff = useMailbox((s) => s.overview?.cutOff);
  const [picker, setPicker] = useState<HTMLInputElement | null>(null);
  if (!cutOff) return null;
  const { names, target, added } = cutOff;
  return (
    <section
      aria-label="Import"
      className="flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-2"
    >
      <p role="status" className="min-w-64 flex-1">
        <strong>The import was cut off</strong> when the page was closed: {messages(added)} from {names} came in. Choose
        the same files again, and the rest is added.
      </p>
      <input
        ref={setPicker}
        type="file"
        multiple
        hidden
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = '';
          void bringIn(files, target);
        }}
      />
      <button className="btn btn-sm btn-primary" onClick={() => picker?.click()}>
        Choose the files
      </button>
      <button className="btn btn-outline btn-sm" onClick={() => void mailroom.forgetCutOff()}>
        Put away
      </button>
    </section>
  );
}

/** The import under way, on every page: how far, how many, and a way to stop; then what it came to. */
export function ImportStrip() {
  const { importing, imported } = useMailbox();
  const promise = useKeeping();
  if (importing) {
    const { bytesDone, bytesTotal, added, already, damaged, file, fileIndex, files, job } = importing;
    return (
      <section
        aria-label="Import"
        className="flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-2"
      >
        <progress
          className="progress w-48 progress-primary"
          aria-label="Import progress"
          value={bytesDone}
          max={Math.max(1, bytesTotal)}
        />
        <p role="status" className="min-w-0 flex-1 truncate">
          Bringing in {files > 1 ? `${file} (${count(fileIndex + 1)} of ${count(files)} files)` : file}: {count(added)}{' '}
          added
          {already > 0 && `, ${count(already)} here already`}
          {damaged > 0 && `, ${count(damaged)} damaged`} · {sizeWords(bytesDone)} of {sizeWords(bytesTotal)}
        </p>
        <button className="btn btn-outline btn-sm" onClick={() => void mailroom.cancelImport(job)}>
          Stop
        </button>
      </section>
    );
  }
  if (!imported) return <CutOff />;
  const { added, already, damaged, refused, cancelled, error } = imported;
  return (
    <section aria-label="Import" className="flex items-start gap-3 border-b border-base-300 bg-base-200 px-4 py-2">
      <div role="status" className="min-w-0 flex-1">
        <p>
          <strong>{cancelled ? 'Stopped.' : error ? 'The import stopped early.' : 'Brought in.'}</strong>{' '}
          {messages(added)} added
          {already > 0 && `, ${count(already)} here already`}
          {damaged > 0 && (
            <>
              ,{' '}
              <Link className="link" to="/damaged">
                {count(damaged)} damaged
              </Link>
            </>
          )}
          .{error && ` ${error}`}
          {cancelled && ' What was added stays; Undo in the Logbook takes it out again.'}
        </p>
        {promise.refused && !promise.kept && added > 0 && (
          <p className="text-sm">
            This browser has not promised to keep it when the disk runs low: keep the files, or{' '}
            <Link className="link" to="/mail">
              look what helps
            </Link>
            .
          </p>
        )}
        {refused.length > 0 && (
          <ul aria-label="Not taken" tabIndex={0} className="mt-1 max-h-40 overflow-y-auto text-sm">
            {refused.map(({ file, reason }, i) => (
              <li key={i}>
                <strong>{file}</strong> was not taken. {reason}
              </li>
            ))}
          </ul>
        )}
      </div>
      <button className="btn btn-outline btn-sm" onClick={() => useMailbox.setState({ imported: null })}>
        Put away
      </button>
    </section>
  );
}
