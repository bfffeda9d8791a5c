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
