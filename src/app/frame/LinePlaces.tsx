import {
  Archive,
  BellOff,
  ChevronDown,
  ChevronRight,
  Folder,
  GalleryVerticalEnd,
  Hand,
  Inbox,
  Search,
  Send,
  ShieldX,
  SquarePen,
  Trash2,
  type LucideIcon,
} from 'lucide-react';
import { Fragment, type ReactNode } from 'react';
import { NavLink } from 'react-router';
import { inTree } from '../../core/mail/nesting';
import { fixedPlace, fixedPlaces, type Place, placeName } from '../../core/mail/place';
import { count } from '../../core/text/sentences';
import type { Overview } from '../../mailroom/border/overview';
import type { View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { viewPath } from '../paths';
import { useDrafts } from '../state/drafts';
import { useMailbox } from '../state/overview';
import { prefer, usePreferences } from '../state/preferences';
import { useAnswer } from '../ui/useAnswer';
import { Count, Drop, linkStyle, type Numbers, PlaceLink } from './PlaceLink';

const icons: Partial<Record<Place, LucideIcon>> = {
  inbox: Inbox,
  held: Hand,
  archive: Archive,
  junk: ShieldX,
  bin: Trash2,
  sent: Send,
  drafts: SquarePen,
};

/** A part of the line that folds, by a press on its heading; in a folded line all parts are open. */
function Fold({ name, folded, children }: { name: string; folded: boolean; children: ReactNode }) {
  const closed = usePreferences((s) => s.closedParts);
  const open = folded || !closed.includes(name);
  const Chevron = open ? ChevronDown : ChevronRight;
  return (
    <>
      {folded ? (
        <h2 className="sr-only">{name}</h2>
      ) : (
        <h2 className="quiet pt-2 pb-0.5 text-xs font-semibold">
          <button
            className="flex min-h-6 w-full items-center gap-1 rounded px-1 hover:bg-base-300"
            aria-expanded={open}
            onClick={() => prefer({ closedParts: open ? [...closed, name] : closed.filter((one) => one !== name) })}
          >
            <span className="flex-1 text-left">{name}</span>
            <Chevron size={14} aria-hidden />
          </button>
        </h2>
      )}
      {open && <ul className="flex flex-col">{children}</ul>}
    </>
  );
}

interface PartProps {
  overview: Overview;
  folded: boolean;
  onGo: () => void;
}

/** The saved searches, each with what it finds now. */
function Searches({ overview: { setup }, folded, onGo }: PartProps) {
  const revision = useMailbox((s) => s.revision);
  const { searches } = setup;
  const views = searches.map(({ query, within }): View => ({ kind: 'found', query, within }));
  const question = JSON.stringify(views);
  const { value: counts } = useAnswer(
    () => (views.length ? mailroom.counts(views) : Promise.resolve([])),
    `${question} ${revision}`,
    0,
    question,
  );
  if (searches.length === 0) return null;
  return (
    <Fold name="Searches" folded={folded}>
      {searches.map(({ id, name }, at) => (
        <PlaceLink
          key={id}
          to={viewPath(views[at])}
          name={name}
          icon={Search}
          numbers={counts?.[at]}
          folded={folded}
          onGo={onGo}
        />
      ))}
    </Fold>
  );
}

/** The trays: how many new ones each has delivered, or how many wait in it. */
function Trays({ overview, folded, onGo }: PartProps) {
  const { setup, trays } = overview;
  if (setup.trays.length === 0) return null;
  return (
    <Fold name="Trays" folded={folded}>
      {setup.trays.map(({ id, name }) => {
        const { waits = 0, here = 0, unread = 0 } = trays.find((one) => one.tray === id) ?? {};
        const says = unread > 0 ? `${count(unread)} new` : waits > 0 ? `${count(waits)} wait` : '';
        const view = { kind: 'place', place: unread > 0 || here > 0 ? 'inbox' : 'held', tray: id } as const;
        return (
          <Drop key={id} id={`tray-${id}`} act={{ do: 'tray', tray: id }}>
            <NavLink
              to={viewPath(view)}
              onClick={onGo}
              title={`${name}: ${count(unread)} new, ${count(here)} in the Inbox, ${count(waits)} wait`}
              className={({ isActive }) => linkStyle(isActive)}
            >
              <GalleryVerticalEnd size={16} aria-hidden className="shrink-0" />
              <span className={folded ? 'sr-only' : 'min-w-0 flex-1 truncate'}>{name}</span>
              {!folded && says && <span className="quiet px-1 text-xs whitespace-nowrap tabular-nums">{says}</span>}
            </NavLink>
          </Drop>
        );
      })}
    </Fold>
  );
}

/** The labels, nested, each with its ink. */
function Labels({ overview, folded, onGo }: PartProps) {
  const { setup } = overview;
  if (setup.labels.length === 0) return null;
  return (
    <Fold name="Labels" folded={folded}>
      {inTree(setup.labels).map(({ item: label, depth }) => {
        const view: View = { kind: 'label', label: label.id };
        const { total = 0, unread = 0 } = overview.labels.find((l) => l.label === label.id) ?? {};
        return (
          <Drop
            key={label.id}
            id={`label-${label.id}`}
            act={{ do: 'label', label: label.id, value: true }}
            depth={folded ? 0 : depth}
          >
            <NavLink
              to={viewPath(view)}
              onClick={onGo}
              title={label.name}
              className={({ isActive }) => linkStyle(isActive)}
            >
              <span className={`ink ink-${label.ink}`}>{folded ? label.name.slice(0, 2) : label.name}</span>
            </NavLink>
            {!folded && <Count path={viewPath(view)} name={label.name} total={total} unread={unread} />}
          </Drop>
        );
      })}
    </Fold>
  );
}

/** What lies where: places, folders, labels and saved searches, each with the number that the person chose. */
export function LinePlaces({ overview, folded, onGo }: PartProps) {
  const { setup, places } = overview;
  const begun = useDrafts((s) => s.rows.length);
  const numbersOf = (place: Place): Numbers => {
    const { total, unread } = places.find((p) => p.place === place) ?? { total: 0, unread: 0 };
    // Drafts that are written in this browser stand there, too; and what isn’t sent yet is seldom unread.
    // What waits is nothing to be read now.
    if (place === 'held') return { total, unread, usual: 'total' };
    return place === 'drafts' ? { total: total + begun, unread, usual: 'total' } : { total, unread };
  };
  const link = (place: Place, depth = 0) => (
    <PlaceLink
      key={place}
      to={viewPath({ kind: 'place', place })}
      name={placeName(place, setup.folders)}
      icon={icons[place] ?? Folder}
      place={place}
      depth={depth}
      numbers={numbersOf(place)}
      folded={folded}
      onGo={onGo}
    />
  );
  return (
    <>
      <Fold name="Places" folded={folded}>
        {fixedPlaces
          .filter((place) => !fixedPlace(place).onceUsed || numbersOf(place).total > 0)
          .map((place) => (
            <Fragment key={place}>
              {link(place)}
              {place === 'junk' && !folded && overview.doubtful > 0 && (
                <li className="pl-7">
                  <NavLink to="/second-look" onClick={onGo} className="link flex min-h-6 items-center text-sm">
                    {count(overview.doubtful)} for a second look
                  </NavLink>
                </li>
              )}
            </Fragment>
          ))}
        {overview.silenced > 0 && (
          <PlaceLink
            to="/silenced"
            name="Silenced"
            icon={BellOff}
            numbers={{ total: overview.silenced, unread: 0, usual: 'total' }}
            folded={folded}
            onGo={onGo}
          />
        )}
      </Fold>
      <Trays overview={overview} folded={folded} onGo={onGo} />
      {setup.folders.length > 0 && (
        <Fold name="Folders" folded={folded}>
          {inTree(setup.folders).map(({ item, depth }) => link(`folder:${item.id}`, folded ? 0 : depth))}
        </Fold>
      )}
      <Labels overview={overview} folded={folded} onGo={onGo} />
      <Searches overview={overview} folded={folded} onGo={onGo} />
    </>
  );
}
