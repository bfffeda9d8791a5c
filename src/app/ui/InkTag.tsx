import { inkTags, type Ink } from '../../core/mail/label';
import type { Setup } from '../../core/line/setup';

/** A label as its ink tag. A label that is gone is not shown. */
export function InkTag({ id, setup }: { id: string; setup: Setup }) {
  const label = setup.labels.find((l) => l.id === id);
  return label ? (
    <span className={`ink ink-${label.ink}`} title={label.name}>
      {label.name}
    </span>
  ) : null;
}

/** An ink by its two-letter tag: what a row or a legend shows beside the colour. */
export const InkMark = ({ ink }: { ink: Ink }) => (
  <span className={`ink-mark ink-${ink}`} title={`Ink: ${ink}`} aria-label={`Ink ${ink}`} role="img">
    {inkTags[ink]}
  </span>
);
