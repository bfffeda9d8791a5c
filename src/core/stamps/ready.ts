// Stamps that stand ready: what most people do again and again (common practice, no source).
import type { Label } from '../mail/label';
import { unchosen, type Stamp } from './stamp';

/** A stamp that stands ready, and what it is for. */
export interface ReadyStamp extends Omit<Stamp, 'id'> {
  says: string;
}

/** The ready ones; a label of the name “Bills” is taken where there is one. */
export function readyStamps(labels: readonly Label[]): ReadyStamp[] {
  const bills = labels.find(({ name }) => /^bills$/i.test(name));
  return [
    {
      name: 'Answered and done',
      icon: 'answer',
      ink: null,
      acts: [{ do: 'read' }, { do: 'done' }, { do: 'move', place: 'archive' }],
      says: 'Once the answer has gone: read, its flag done, and away.',
    },
    {
      name: 'Bills',
      icon: 'money',
      ink: 'ochre',
      acts: [
        { do: 'label', label: bills?.id ?? unchosen },
        { do: 'flag', due: 'next week' },
        { do: 'move', place: `folder:${unchosen}` },
      ],
      says: 'Labelled, flagged for next week, and into a folder that you choose at its first use.',
    },
    {
      name: 'To my manager',
      icon: 'person',
      ink: null,
      acts: [
        { do: 'read' },
        { do: 'forward', to: '', whom: { by: 'role', role: 'manager' }, form: 'text', open: true },
      ],
      says: 'Opens it forwarded to whoever has the role “My manager” on their card.',
    },
    {
      name: 'To my team',
      icon: 'people',
      ink: null,
      acts: [{ do: 'read' }, { do: 'forward', to: '', whom: { by: 'role', role: 'team' }, form: 'text', open: true }],
      says: 'Opens it forwarded to all who have the role “My team”.',
    },
    {
      name: 'Read this week',
      icon: 'book',
      ink: 'teal',
      acts: [
        { do: 'flag', due: 'this week' },
        { do: 'ink', ink: 'teal' },
        { do: 'move', place: 'archive' },
      ],
      says: 'Flagged for this week and out of the Inbox: it stands in the Agenda.',
    },
    {
      name: 'Not for me',
      icon: 'silence',
      ink: null,
      acts: [{ do: 'read' }, { do: 'silence', place: 'archive' }],
      says: 'Leaves the conversation: it goes to the Archive, and so do later answers.',
    },
  ];
}
