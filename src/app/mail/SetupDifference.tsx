import type { DeliveryField, JunkField, SetupDifference as Difference } from '../../core/line/takingUp';
import type { SetupList } from '../../core/line/setupEdit';
import { count } from '../../core/text/sentences';

/** So many names are listed of what comes, changes or goes in one list. */
const mostNames = 200;

const listWords: Record<SetupList, string> = {
  folders: 'Folders',
  labels: 'Labels',
  register: 'Register',
  accounts: 'Own addresses',
  searches: 'Saved searches',
  lanes: 'Lanes',
  left: 'Lists that were left',
  told: 'Being told',
  contacts: 'Contacts',
  trays: 'Trays',
  stamps: 'Stamps',
  blocks: 'Text blocks',
  rules: 'Rules',
};

const deliveryWords: Record<DeliveryField, string> = {
  morning: 'when a morning begins',
  zone: 'the time zone',
  hold: 'the hold',
  letThrough: 'what is let through',
  timetable: 'the timetable',
  quiet: 'periods of quiet',
  answer: 'the automatic answer',
};

const junkWords: Record<JunkField, string> = {
  strictness: 'how strict it is',
  keepDays: 'how long junk is kept',
  toBin: 'where junk goes',
  contactsSafe: 'whether contacts are safe',
  writtenToSafe: 'whether people written to are safe',
  shipped: 'with what it begins',
  carried: 'what it has learned',
};

const sides = [
  ['comes', 'come', 'comes'],
  ['changes', 'change', 'changes'],
  ['goes', 'go', 'goes'],
] as const;

function Names({ names, says }: { names: readonly string[]; says: string }) {
  return (
    <details>
      <summary className="cursor-pointer">{says}</summary>
      <ul className="my-1 ml-4 list-disc text-sm [overflow-wrap:anywhere]">
        {names.slice(0, mostNames).map((name, at) => (
          <li key={at}>{name}</li>
        ))}
        {names.length > mostNames && <li>and {count(names.length - mostNames)} more</li>}
      </ul>
    </details>
  );
}

interface SetupDifferenceProps {
  difference: Difference;
  kept: { folders: string[]; labels: string[] };
  /** The desk's settings that change, in words. */
  desk: readonly string[];
}

/** What taking up a setup would change: list by list, each name to be read. */
export function SetupDifference({ difference: { lists, junk, delivery }, kept, desk }: SetupDifferenceProps) {
  const differing = lists.filter((l) => l.comes.length + l.changes.length + l.goes.length > 0 || l.reordered);
  const keptNames = [...kept.folders, ...kept.labels];
  if (differing.length + junk.length + delivery.length + desk.length === 0)
    return <p>It says just what is decided here already.</p>;
  return (
    <ul className="flex flex-col gap-2" aria-label="What changes">
      {differing.map((l) => (
        <li key={l.list} className="border-l-4 border-base-300 pl-3">
          <strong>{listWords[l.list]}</strong>
          <span className="quiet">
            {' '}
            · {count(l.stays)} stay as they are{l.reordered && ', in another order'}
          </span>
          {sides.map(
            ([side, many, one]) =>
              l[side].length > 0 && (
                <Names
                  key={side}
                  names={l[side]}
                  says={`${count(l[side].length)} ${l[side].length === 1 ? one : many}`}
                />
              ),
          )}
        </li>
      ))}
      {junk.length > 0 && (
        <li className="border-l-4 border-base-300 pl-3">
          <strong>Junk filter</strong>: {junk.map((field) => junkWords[field]).join(', ')}
        </li>
      )}
      {delivery.length > 0 && (
        <li className="border-l-4 border-base-300 pl-3">
          <strong>Delivery</strong>: {delivery.map((field) => deliveryWords[field]).join(', ')}
        </li>
      )}
      {desk.length > 0 && (
        <li className="border-l-4 border-base-300 pl-3">
          <strong>The desk</strong>: {desk.join(', ')}
        </li>
      )}
      {keptNames.length > 0 && (
        <li className="border-l-4 border-warning pl-3">
          <Names
            names={keptNames}
            says={`${count(keptNames.length)} that it doesn’t have stay, because mail is in them`}
          />
        </li>
      )}
    </ul>
  );
}
