// The pages beside the desk: the work of the mailroom, and what is set up, behind one entry.
import {
  AtSign,
  BellRing,
  CalendarDays,
  ContactRound,
  Filter,
  GalleryVerticalEnd,
  Hand,
  HardDriveDownload,
  NotebookText,
  PackageOpen,
  SearchX,
  ShieldX,
  SlidersHorizontal,
  Stamp,
  Tags,
  TextCursorInput,
  UserCheck,
  Users,
  type LucideIcon,
} from 'lucide-react';

export interface PageEntry {
  to: string;
  name: string;
  icon: LucideIcon;
  /** What it is for, in a line. */
  says: string;
}

/** The work of the mailroom. */
export const workPages: readonly PageEntry[] = [
  { to: '/agenda', name: 'Agenda', icon: CalendarDays, says: 'Flags, tasks and appointments, by day' },
  { to: '/clear-out', name: 'Clear-out', icon: PackageOpen, says: 'Archive or bin much at once, by what it is' },
  { to: '/senders', name: 'Senders', icon: Users, says: 'Who writes how much, and leaving their lists' },
  { to: '/where', name: 'Where did my mail go?', icon: SearchX, says: 'What took a message that is missed' },
  { to: '/logbook', name: 'Logbook', icon: NotebookText, says: 'All that was done, and taking it back' },
];

/** What is set up: the stations of the line first. */
export const setupPages: readonly PageEntry[] = [
  { to: '/register', name: 'Register', icon: UserCheck, says: 'Who is safe and who is blocked' },
  { to: '/junk-filter', name: 'Junk filter', icon: ShieldX, says: 'How strictly mail is judged' },
  { to: '/rules', name: 'Rules', icon: Filter, says: 'What is done to mail of a kind' },
  { to: '/trays', name: 'Trays', icon: GalleryVerticalEnd, says: 'What is gathered, and delivered at an hour' },
  { to: '/delivery', name: 'Hold', icon: Hand, says: 'Hours in which nothing comes, and what is let through' },
  { to: '/accounts', name: 'Accounts', icon: AtSign, says: 'Your own addresses' },
  { to: '/contacts', name: 'Contacts', icon: ContactRound, says: 'People you know, their groups and cards' },
  {
    to: '/text-blocks',
    name: 'Text blocks',
    icon: TextCursorInput,
    says: 'Pieces of writing, put in by a few letters',
  },
  { to: '/stamps', name: 'Stamps', icon: Stamp, says: 'Several acts by one press, or a digit' },
  { to: '/labels', name: 'Labels and folders', icon: Tags, says: 'Their names, inks and order' },
  { to: '/telling', name: 'Being told', icon: BellRing, says: 'By a banner or a sound, and of which mail' },
  { to: '/desk', name: 'The desk', icon: SlidersHorizontal, says: 'Rows, the reading area, what a swipe does' },
  {
    to: '/mail',
    name: 'Mail in and out',
    icon: HardDriveDownload,
    says: 'Files of mail, the setup as a file, starting afresh',
  },
];

/** The pages of which the line has no entry of their own: they stand within “Set up”. */
export const withinSetup = setupPages.slice(5).map(({ to }) => to);
