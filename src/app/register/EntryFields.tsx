import { useMemo, useState } from 'react';
import { domainOf } from '../../core/mail/address';
import { foldSearch } from '../../core/text/fold';
import { everything, type EntryInput, type EntryKind } from '../../core/senders/register';
import type { About } from './entryDraft';
import { isPicked, kindWords, picksOf } from './kinds';

const choices = ['sender', 'list', 'own', 'country', 'charset', 'script'] as const;
const nameOf = (kind: About['kind']): string => (kind === 'sender' ? 'A sender or domain' : kindWords[kind].name);

interface EntryFieldsProps {
  about: About;
  read: EntryInput;
  /** What is said below the field when all is well. */
  says: string;
  /** The sender and list of the message that the entry is made from; empty where it is made from none. */
  from: { address: string; listId: string };
  own: readonly string[];
  onChange: (about: About) => void;
}

/** What an entry is about: its kind, and the value, typed or picked. */
export function EntryFields({ about, read, says, from, own, onChange }: EntryFieldsProps) {
  const set = (part: Partial<About>) => onChange({ ...about, ...part });
  const { kind } = about;
  // The forms that are offered follow the sender that is typed; with a domain alone the address at it stays at hand.
  const [typedSender, setTypedSender] = useState(from.address);
  const typedNow = kind === 'sender' && read.ok ? read.value : null;
  const isAddress = read.ok && read.kind === 'address';
  const sender = typedNow === null || domainOf(typedSender) === typedNow ? typedSender : typedNow;
  if (isAddress && typedNow !== null && typedNow !== typedSender) setTypedSender(typedNow);
  const domain = domainOf(sender);
  const offers = [
    ...(sender.includes('@') ? ([['sender', sender, `Only ${sender}`]] as const) : []),
    ...(domain && sender.includes('@') ? ([['sender', domain, `All of ${domain}`]] as const) : []),
    ...(from.listId ? ([['list', from.listId, `The list ${from.listId}`]] as const) : []),
  ];
  return (
    <>
      <div>
        <label htmlFor="entry-kind" className="mb-1 block font-semibold">
          About
        </label>
        <select
          id="entry-kind"
          className="select w-full"
          value={kind}
          onChange={(e) => set({ kind: e.target.value as About['kind'], typed: '', except: [] })}
        >
          {choices.map((one) => (
            <option key={one} value={one}>
              {nameOf(one)}
            </option>
          ))}
        </select>
      </div>
      {kind !== 'sender' && isPicked(kind) ? (
        <Picks key={kind} kind={kind} about={about} onChange={onChange} />
      ) : (
        <div>
          <label htmlFor="entry-value" className="mb-1 block font-semibold">
            {kind === 'sender' ? kindWords.address.field : kindWords[kind].field}
          </label>
          <input
            id="entry-value"
            className="input w-full font-mono"
            value={about.typed}
            autoComplete="off"
            spellCheck={false}
            list={kind === 'own' ? 'own-addresses' : undefined}
            aria-describedby="entry-value-says"
            aria-invalid={!read.ok}
            onChange={(e) => set({ typed: e.target.value })}
          />
          {kind === 'own' && (
            <datalist id="own-addresses">
              {own.map((address) => (
                <option key={address} value={address} />
              ))}
            </datalist>
          )}
        </div>
      )}
      <p id="entry-value-says" className={`-mt-3 text-sm ${read.ok ? 'quiet' : ''}`} role="status">
        {read.ok ? says : read.error}
      </p>
      {offers.length > 0 && (kind === 'sender' || kind === 'list') && (
        <div className="-mt-2 flex flex-wrap gap-2">
          {offers.map(([to, typed, word]) => (
            <button
              key={word}
              type="button"
              className="btn h-auto max-w-full justify-start btn-outline py-1 text-left [overflow-wrap:anywhere] btn-xs"
              onClick={() => set({ kind: to, typed })}
            >
              {word}
            </button>
          ))}
        </div>
      )}
      {read.ok && read.kind === 'domain' && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={about.below}
            onChange={(e) => set({ below: e.target.checked })}
          />
          With its subdomains
        </label>
      )}
    </>
  );
}

/** A country, character set or writing system: one of them, or all but some. */
function Picks({ kind, about, onChange }: { kind: EntryKind; about: About; onChange: (about: About) => void }) {
  const [wanted, setWanted] = useState('');
  const picks = useMemo(() => picksOf(kind), [kind]);
  const word = foldSearch(wanted.trim());
  const shown = picks.filter(([value, words, also]) => foldSearch(`${value} ${words} ${also ?? ''}`).includes(word));
  const all = about.typed === everything;
  const pick = (value: string, on: boolean) => {
    if (!all) return onChange({ ...about, typed: value });
    const except = on ? [...about.except, value] : about.except.filter((one) => one !== value);
    onChange({ ...about, except });
  };
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{kindWords[kind].field}</legend>
      <div className="mb-2 flex gap-4">
        <label className="flex items-center gap-2">
          <input
            type="radio"
            name="all"
            className="radio radio-sm"
            checked={!all}
            onChange={() => onChange({ ...about, typed: '', except: [] })}
          />
          One
        </label>
        <label className="flex items-center gap-2">
          <input
            type="radio"
            name="all"
            className="radio radio-sm"
            checked={all}
            onChange={() => onChange({ ...about, typed: everything, except: [] })}
          />
          All but some
        </label>
      </div>
      <input
        className="input mb-1 input-sm w-full"
        aria-label={`Find a ${kindWords[kind].field.toLowerCase()}`}
        placeholder="part of the name or code"
        value={wanted}
        onChange={(e) => setWanted(e.target.value)}
      />
      <ul
        className="h-56 overflow-y-auto rounded border border-base-300 px-2 py-1"
        aria-label={all ? 'But not' : undefined}
      >
        {shown.map(([value, words]) => (
          <li key={value}>
            <label className="flex min-h-6 items-center gap-2">
              <input
                type={all ? 'checkbox' : 'radio'}
                name="pick"
                className={all ? 'checkbox checkbox-xs' : 'radio radio-xs'}
                checked={all ? about.except.includes(value) : about.typed === value}
                onChange={(e) => pick(value, e.target.checked)}
              />
              <span>
                {all && <span className="sr-only">But not </span>}
                {words}
              </span>
            </label>
          </li>
        ))}
        {shown.length === 0 && <li className="quiet">None is called that.</li>}
      </ul>
    </fieldset>
  );
}
