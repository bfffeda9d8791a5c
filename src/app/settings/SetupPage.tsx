import { Link } from 'react-router';
import { count } from '../../core/text/sentences';
import type { Setup } from '../../core/line/setup';
import { setupPages } from '../pages';
import { useMailbox } from '../state/overview';
import { Page } from '../ui/Page';

const some = (n: number, one: string, many = `${one}s`) =>
  n === 0 ? `no ${many}` : `${count(n)} ${n === 1 ? one : many}`;

/** What is set up now, for the pages of which a number says something. */
const nowOf: Record<string, (setup: Setup) => string> = {
  '/register': ({ register }) => some(register.length, 'entry', 'entries'),
  '/rules': ({ rules }) => some(rules.length, 'rule'),
  '/accounts': ({ accounts }) => some(accounts.length, 'account'),
  '/contacts': ({ contacts }) => some(contacts.length, 'contact'),
  '/stamps': ({ stamps }) => some(stamps.length, 'stamp'),
  '/text-blocks': ({ blocks }) => some(blocks.length, 'block'),
  '/labels': ({ labels, folders }) => `${some(labels.length, 'label')}, ${some(folders.length, 'folder')}`,
};

/** All that is set up: one entry of the line, its pages inside. */
export function SetupPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  return (
    <Page title="Set up">
      <ul className="flex max-w-2xl flex-col">
        {setupPages.map(({ to, name, icon: Icon, says }) => (
          <li key={to} className="border-b border-base-300">
            <Link to={to} className="flex min-h-13 items-center gap-3 rounded px-2 py-1.5 hover:bg-base-200">
              <Icon size={18} aria-hidden className="shrink-0" />
              <span className="min-w-0 flex-1">
                <span className="block font-semibold">{name}</span>
                <span className="quiet block text-sm">{says}</span>
              </span>
              {setup && to in nowOf && <span className="quiet text-sm tabular-nums">{nowOf[to](setup)}</span>}
            </Link>
          </li>
        ))}
      </ul>
    </Page>
  );
}
