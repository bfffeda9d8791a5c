// The icons of stamps, by what they mean.
import {
  Archive,
  Banknote,
  BookOpen,
  CalendarDays,
  Flag,
  Folder,
  Forward,
  GalleryVerticalEnd,
  Hourglass,
  ListTodo,
  MessageSquareOff,
  Reply,
  ShieldCheck,
  ShieldX,
  Ship,
  Stamp as StampPicture,
  Tag,
  Trash2,
  User,
  Users,
  type LucideIcon,
} from 'lucide-react';
import type { StampIcon } from '../../core/stamps/stamp';

const pictures: Record<StampIcon, LucideIcon> = {
  stamp: StampPicture,
  archive: Archive,
  bin: Trash2,
  flag: Flag,
  tag: Tag,
  folder: Folder,
  tray: GalleryVerticalEnd,
  person: User,
  people: Users,
  answer: Reply,
  forward: Forward,
  task: ListTodo,
  appointment: CalendarDays,
  money: Banknote,
  book: BookOpen,
  safe: ShieldCheck,
  blocked: ShieldX,
  silence: MessageSquareOff,
  hourglass: Hourglass,
  ship: Ship,
};

/** The icon of a stamp. */
export function StampMark({ icon, size = 16 }: { icon: StampIcon; size?: number }) {
  const Picture = pictures[icon];
  return <Picture size={size} aria-hidden className="shrink-0" />;
}
