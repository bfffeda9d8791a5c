import { count } from '../../core/text/sentences';

const height = 20;
const width = 6;

/** Messages of the last weeks as small bars, the oldest on the left. */
export function Weeks({ weeks }: { weeks: readonly number[] }) {
  const most = Math.max(1, ...weeks);
  const sum = (some: readonly number[]) => some.reduce((a, b) => a + b, 0);
  const half = weeks.length / 2;
  const says = `${count(sum(weeks.slice(half)))} in the last ${half} weeks, ${count(sum(weeks.slice(0, half)))} in the ${half} before`;
  return (
    <svg
      role="img"
      aria-label={says}
      width={weeks.length * width}
      height={height}
      className="ml-auto text-primary"
      viewBox={`0 0 ${weeks.length * width} ${height}`}
    >
      <title>{says}</title>
      {weeks.map((n, at) => {
        const tall = n === 0 ? 1 : Math.max(3, (n / most) * height);
        return (
          <rect
            key={at}
            x={at * width}
            y={height - tall}
            width={width - 1.5}
            height={tall}
            fill="currentColor"
            opacity={n === 0 ? 0.35 : at < half ? 0.65 : 1}
          />
        );
      })}
    </svg>
  );
}
