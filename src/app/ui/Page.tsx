import type { ReactNode } from 'react';
import { Link, useLocation } from 'react-router';
import { withinSetup } from '../pages';
import { useTitle } from './useTitle';

interface PageProps {
  title: string;
  /** What can be done on the page as a whole. */
  acts?: ReactNode;
  /** What is below fills the page, and scrolls by itself. */
  whole?: boolean;
  children: ReactNode;
}

/** A page beside the desk: a heading, its acts, and what scrolls below. */
export function Page({ title, acts, whole = false, children }: PageProps) {
  const { pathname } = useLocation();
  useTitle(title);
  return (
    <main className="@container flex min-h-0 min-w-0 flex-1 flex-col">
      <header className="flex min-h-14 flex-wrap items-center gap-3 border-b border-base-300 px-5 py-2">
        {withinSetup.includes(pathname) && (
          <Link to="/setup" className="link text-sm max-md:hidden">
            Set up
          </Link>
        )}
        <h1 className="text-xl font-semibold">{title}</h1>
        <div className="ml-auto flex max-w-full min-w-0 flex-wrap gap-2">{acts}</div>
      </header>
      {whole ? children : <div className="min-h-0 flex-1 overflow-y-auto px-5 py-4">{children}</div>}
    </main>
  );
}

/** What decides on the left, what it does to the mail here on the right; one under the other where it is narrow. */
export function Halves({ left, right, wide = false }: { left: ReactNode; right: ReactNode; wide?: boolean }) {
  // Where what decides is itself a list, it has the larger part.
  const columns = wide
    ? '@5xl:grid-cols-[minmax(26rem,1fr)_minmax(22rem,26rem)]'
    : '@3xl:grid-cols-[minmax(22rem,33rem)_minmax(0,1fr)]';
  return (
    <div className={`grid grid-cols-[minmax(0,1fr)] gap-6 ${columns}`}>
      <div className="flex min-w-0 flex-col gap-4">{left}</div>
      <div className="min-w-0">{right}</div>
    </div>
  );
}
