import { ChevronDown, ChevronRight } from 'lucide-react';
import { Link } from 'react-router';
import { mailroom } from '../../mailroom/client';
import { Evidence } from '../junk/Evidence';
import { settingPath, settingWords } from '../paths';
import { toggleWhy, useDesk } from '../state/desk';
import { useMailbox } from '../state/overview';
import { exactTime } from '../../core/text/time';
import { useAnswer } from '../ui/useAnswer';

/** “Why here”: the last reason in one line, all of them when opened, each leading to the setting that decided. */
export function WhyHere({ id }: { id: number }) {
  const open = useDesk((s) => s.whyOpen);
  const revision = useMailbox((s) => s.revision);
  const { value: lines } = useAnswer(() => mailroom.whyHere(id), `${id} ${revision}`);
  const last = lines?.at(-1);
  return (
    <section aria-label="Why here" className="border-b border-base-300 bg-base-200 px-4 py-1.5 text-sm">
      <button
        className="flex w-full items-start gap-1.5 text-left"
        aria-expanded={open}
        onClick={toggleWhy}
        title="Why here (W)"
      >
        {open ? <ChevronDown size={16} className="mt-0.5" /> : <ChevronRight size={16} className="mt-0.5" />}
        <span className="font-semibold whitespace-nowrap">Why here</span>
        <span className={`min-w-0 flex-1 ${open ? 'invisible' : 'truncate'}`}>
          {last ? `${last.who}: ${last.says}` : ''}
        </span>
      </button>
      {open && (
        <ol className="mt-1 mb-1 ml-2 border-l-2 border-primary pl-4">
          {lines?.map((line, i) => (
            <li key={i} className="relative py-0.5">
              <span aria-hidden className="absolute top-2 -left-[1.32rem] size-2 rounded-full bg-primary" />
              <span className="font-semibold">{line.who}</span>: {line.says}{' '}
              {line.setting && (
                <Link className="link whitespace-nowrap" to={settingPath(line.setting)}>
                  {settingWords(line.setting)}
                </Link>
              )}
              {line.seq !== null && (
                <Link className="link whitespace-nowrap" to={`/logbook?entry=${line.seq}`}>
                  {line.at === null ? 'Logbook' : exactTime(line.at)}
                </Link>
              )}
            </li>
          ))}
        </ol>
      )}
      {open && (
        <p className="mb-1 ml-6 text-sm">
          <Link className="link inline-flex min-h-6 items-center" to={`/logbook?message=${id}`}>
            All that was done to this message
          </Link>
        </p>
      )}
      {open && <Evidence id={id} />}
    </section>
  );
}
