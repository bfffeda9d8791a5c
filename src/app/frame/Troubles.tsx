import { useState } from 'react';

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
