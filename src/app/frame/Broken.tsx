import { Link, useRouteError } from 'react-router';
import { reasonOf } from '../../core/text/sentences';

/** A fault of the program on one page: what it was, and the ways on. The mailroom goes on beside it. */
export function Broken() {
  const error = useRouteError();
  return (
    <main className="flex h-full flex-col items-start gap-3 p-10">
      <h1 className="text-xl font-semibold">This page broke</h1>
      <p className="max-w-prose">
        It is a fault of Wide Sort, not of your mail: all of that is kept. Load the page again; if it breaks again, go
        another way and leave this one alone for now.
      </p>
      <p className="quiet font-mono text-sm [overflow-wrap:anywhere]">{reasonOf(error)}</p>
      <div className="flex gap-2">
        <button className="btn btn-primary btn-sm" onClick={() => window.location.reload()}>
          Load it again
        </button>
        <Link className="btn btn-sm" to="/inbox">
          To the Inbox
        </Link>
      </div>
    </main>
  );
}
