import { count } from '../../core/text/sentences';

const mostShown = 100;

interface RemarksProps {
  remarks: readonly { line: number; says: string }[];
  /** They are all there is to see: nothing was read. */
  open: boolean;
}

/** What of a file that was brought in is not taken, or not whole, line by line. */
export function Remarks({ remarks, open }: RemarksProps) {
  if (remarks.length === 0) return null;
  return (
    <details className="mt-2 border-l-4 border-accent bg-base-200 px-3 py-1.5 text-sm" open={open}>
      <summary className="cursor-pointer">Not taken, or not whole: {count(remarks.length)}</summary>
      <ul tabIndex={0} aria-label="Not taken, or not whole" className="max-h-40 overflow-y-auto">
        {remarks.slice(0, mostShown).map(({ line, says }, n) => (
          <li key={n} className="[overflow-wrap:anywhere]">
            Line {count(line)}: {says}
          </li>
        ))}
        {remarks.length > mostShown && <li>And {count(remarks.length - mostShown)} more.</li>}
      </ul>
    </details>
  );
}
