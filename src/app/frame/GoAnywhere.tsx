import { Command } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { inTree } from '../../core/mail/nesting';
import { fixedPlaces, type Place } from '../../core/mail/place';
import type { Overview } from '../../mailroom/border/overview';
import { actKeys, otherKeys } from '../keys/keys';
import { viewPath } from '../paths';
import { Dialog } from '../ui/Dialog';
import { labelName, placePath } from '../ui/naming';
import { keyNow } from '../ui/useKeys';
import { setupPages, workPages } from '../pages';

interface Way {
  name: string;
  to: string;
  /** Words by which it is found as well. */
  says?: string;
}

/** All that can be gone to, the most gone to first. */
function waysOf({ setup }: Overview): { group: string; ways: Way[] }[] {
  const place = (one: Place): Way => ({
    name: placePath(one, setup),
    to: viewPath({ kind: 'place', place: one }),
  });
  const page = ({ name, to, says }: (typeof workPages)[number]): Way => ({ name, to, says });
  return [
    {
      group: 'Places and folders',
      ways: [...fixedPlaces.map(place), ...inTree(setup.folders).map(({ item }) => place(`folder:${item.id}`))],
    },
    {
      group: 'Labels and searches',
      ways: [
        ...inTree(setup.labels).map(({ item }) => ({
          name: labelName(item.id, setup),
          to: viewPath({ kind: 'label', label: item.id }),
          says: 'label',
        })),
        ...setup.searches.map(({ name, query, within }) => ({
          name,
          to: viewPath({ kind: 'found', query, within }),
          says: `search ${query}`,
        })),
      ],
    },
    {
      group: 'Pages',
      ways: [...workPages, ...setupPages].map(page),
    },
  ];
}

/** What something is known by to the list: places, pages and acts may share a name. */
const known = (name: string, by: string): string => `${name}\n${by}`;

/** How well something fits what was typed: where a word begins so, better than within; 0 where it doesn’t. */
function fits(value: string, typed: string, says: string[] = []): number {
  const sought = typed.trim().toLowerCase();
  const name = value.slice(0, value.indexOf('\n')).toLowerCase();
  if (name.startsWith(sought)) return 1;
  if (name.includes(` ${sought}`)) return 0.8;
  if (name.includes(sought)) return 0.5;
  return says.some((word) => word.toLowerCase().includes(sought)) ? 0.2 : 0;
}

/** Goes anywhere and does anything, by a few letters of its name; what the keys can do here stands with its key. */
export function GoAnywhere({ overview, onClose }: { overview: Overview; onClose: () => void }) {
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  // As it was when this was opened: a question on the screen takes no keys.
  const [acts] = useState(() =>
    [...actKeys, ...otherKeys].flatMap(({ pressed, shown, what }) => {
      const act = pressed === null || pressed === ':' ? undefined : keyNow(pressed);
      return act ? [{ shown, what, act }] : [];
    }),
  );
  const go = (to: string) => {
    onClose();
    void navigate(to);
  };
  const item = 'flex min-h-8 cursor-pointer items-center gap-2 rounded px-2 aria-selected:bg-base-300';
  const group =
    '[&_[cmdk-group-heading]]:quiet [&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:font-semibold';
  return (
    <Dialog title="Go or do" onClose={onClose}>
      <Command label="Go or do" loop filter={fits} tabIndex={undefined}>
        <Command.Input
          autoFocus
          value={typed}
          onValueChange={setTyped}
          placeholder="A place, a page, or what to do"
          className="input w-full"
        />
        <Command.List className="mt-2 max-h-[50vh] overflow-y-auto">
          <Command.Empty className="quiet px-2 py-3">Nothing is called that.</Command.Empty>
          {waysOf(overview).map(({ group: heading, ways }) => (
            <Command.Group key={heading} heading={heading} className={group}>
              {ways.map(({ name, to, says }) => (
                <Command.Item
                  key={to}
                  value={known(name, to)}
                  keywords={says ? [says] : undefined}
                  onSelect={() => go(to)}
                  className={item}
                >
                  <span className="min-w-0 flex-1 truncate">{name}</span>
                  {says && <span className="quiet truncate text-sm">{says}</span>}
                </Command.Item>
              ))}
            </Command.Group>
          ))}
          {acts.length > 0 && (
            <Command.Group heading="Do" className={group}>
              {acts.map(({ shown, what, act }) => (
                <Command.Item
                  key={what}
                  value={known(what, `key ${shown}`)}
                  onSelect={() => {
                    onClose();
                    act();
                  }}
                  className={item}
                >
                  <span className="min-w-0 flex-1 truncate">{what}</span>
                  <kbd className="key">{shown}</kbd>
                </Command.Item>
              ))}
            </Command.Group>
          )}
          {typed.trim() !== '' && (
            <Command.Group heading="Search" className={group} forceMount>
              <Command.Item
                value={known(typed, 'search')}
                forceMount
                onSelect={() => go(viewPath({ kind: 'found', query: typed.trim(), within: null }))}
                className={item}
              >
                <span className="min-w-0 flex-1 truncate">Find mail with “{typed.trim()}”</span>
              </Command.Item>
            </Command.Group>
          )}
        </Command.List>
      </Command>
    </Dialog>
  );
}
