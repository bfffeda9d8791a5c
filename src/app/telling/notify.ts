// Banner and sound for chosen new mail, by the browser's own means.
import { exactTime } from '../../core/text/time';
import type { DatedItem } from '../../mailroom/border/agenda';
import type { Row } from '../../mailroom/border/rows';
import { onMailroom } from '../../mailroom/client';
import { usePreferences } from '../state/preferences';

export const bannersAllowed = (): boolean => 'Notification' in window && Notification.permission === 'granted';

/** Asks the browser where it has not been asked yet; whether banners may be shown. */
export async function allowBanners(): Promise<boolean> {
  if (!('Notification' in window)) return false;
  if (Notification.permission === 'default') await Notification.requestPermission();
  return bannersAllowed();
}

/** Two soft tones, made on the spot. */
export function playSound(): void {
  const audio = new AudioContext();
  for (const [i, pitch] of [523, 659].entries()) {
    const tone = audio.createOscillator();
    const volume = audio.createGain();
    const start = audio.currentTime + i * 0.18;
    tone.frequency.value = pitch;
    volume.gain.setValueAtTime(0, start);
    volume.gain.linearRampToValueAtTime(0.12, start + 0.02);
    volume.gain.exponentialRampToValueAtTime(0.001, start + 0.35);
    tone.connect(volume).connect(audio.destination);
    tone.start(start);
    tone.stop(start + 0.4);
  }
  setTimeout(() => void audio.close(), 1_000);
}

/** What a banner says of one message before who wrote it, and of many. */
const words = {
  told: { one: '', many: 'new messages' },
  due: { one: 'Due: ', many: 'flags are due' },
  back: { one: 'Back: ', many: 'messages are back that were put off' },
} as const;

/** One banner stands for all: the next takes its place, and nothing piles up. */
function showBanner(title: string, body: string): void {
  const banner = new Notification(title, { body, tag: 'wide-sort' });
  banner.onclick = () => {
    window.focus();
    banner.close();
  };
}

function showMail(rows: readonly Row[], kind: keyof typeof words): void {
  const [{ from, subject }] = rows;
  const who = `${words[kind].one}${from.name || from.address}`;
  const many = `${rows.length} ${words[kind].many}`;
  const title = rows.length === 1 ? who : many;
  const body =
    rows.length === 1 ? subject || 'No subject' : rows.map((row) => row.from.name || row.from.address).join(', ');
  showBanner(title, body);
}

/** Tasks and appointments whose time to be told of has come. */
function tellOfItems(items: readonly DatedItem[]): void {
  const { banner, sound, dueTold } = usePreferences.getState();
  if (!dueTold || items.length === 0) return;
  const [{ title, at, kind }] = items;
  if (banner && bannersAllowed()) {
    const one = items.length === 1;
    const body = one ? (at === null ? '' : exactTime(at)) : items.map((item) => item.title).join(', ');
    const head = one ? `${kind === 'task' ? 'Due' : 'Soon'}: ${title}` : `${items.length} tasks and appointments`;
    showBanner(head, body);
  }
  if (sound) playSound();
}

/** Tells from now on, as long as the page is open. Of several tabs one tells: the one that holds the lock. */
export function tellOfMail(): void {
  const tell = () =>
    onMailroom((event) => {
      if (event.kind === 'items due') return tellOfItems(event.items);
      if ((event.kind !== 'told' && event.kind !== 'due' && event.kind !== 'back') || event.rows.length === 0) return;
      const { banner, sound, dueTold } = usePreferences.getState();
      if (event.kind !== 'told' && !dueTold) return;
      if (banner && bannersAllowed()) showMail(event.rows, event.kind);
      if (sound) playSound();
    });
  void navigator.locks.request('wide-sort-telling', () => {
    tell();
    // Held until the tab closes; then the next tab's turn comes.
    return new Promise(() => undefined);
  });
}
