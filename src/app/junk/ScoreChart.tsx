import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { useEffect, useMemo, useRef } from 'react';
import { barCount as bars, scoreBars, scoresInBar as step } from '../../core/junk/scoreBars';
import type { FilterReport } from '../../mailroom/border/junk';
import { usePreferences } from '../state/preferences';
import { count } from '../../core/text/sentences';
import { linePlugin } from './scoreLine';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Legend, Tooltip);

/** The series from the bottom up: light beside dark, so that they are told apart without colour and in either theme. */
const series = [
  { key: 'good', word: 'Marked as not junk', colour: '#a9d6cd' },
  { key: 'inbox', word: 'In the Inbox', colour: '#2b8474' },
  { key: 'unmarked', word: 'In Junk', colour: '#d9a441' },
  { key: 'junk', word: 'Marked as junk', colour: '#9c3a24' },
] as const;

type Values = ReturnType<typeof scoreBars>;

/** The chart on its canvas, in the colours of the theme. */
function drawnChart(canvas: HTMLCanvasElement, values: Values, lineAt: () => number | null): Chart {
  const style = getComputedStyle(canvas);
  const colour = (name: string) => style.getPropertyValue(name).trim() || 'gray';
  const ink = colour('--color-base-content');
  Chart.defaults.font.family = style.fontFamily;
  return new Chart(canvas, {
    type: 'bar',
    data: {
      labels: Array.from(
        { length: bars },
        (_, bar) => `${bar * step}–${bar === bars - 1 ? 100 : (bar + 1) * step - 1}`,
      ),
      datasets: series.map(({ key, word, colour: fill }) => ({
        label: word,
        data: values[key],
        backgroundColor: fill,
        borderColor: colour('--color-base-100'),
        borderWidth: 1,
        barPercentage: 1,
        categoryPercentage: 1,
      })),
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      color: ink,
      scales: {
        x: {
          stacked: true,
          ticks: { color: ink, maxRotation: 0, autoSkip: true },
          title: { display: true, text: 'Score', color: ink },
          grid: { display: false },
        },
        y: {
          stacked: true,
          ticks: { color: ink, precision: 0 },
          title: { display: true, text: 'Messages', color: ink },
          grid: { color: colour('--color-base-300') },
        },
      },
      plugins: { legend: { position: 'bottom', labels: { color: ink, boxWidth: 14 } } },
    },
    plugins: [
      linePlugin(
        () => {
          const line = lineAt();
          return line === null ? null : { share: line / 100, says: `line at ${line}` };
        },
        ink,
        style.font,
      ),
    ],
  });
}

/** The same as a table, for who does not see the chart. */
function ScoreTable({ values }: { values: Values }) {
  // A table keeps the width that its words need: only what is around it can be hidden.
  return (
    <div className="sr-only">
      <table>
        <caption>Messages by score</caption>
        <thead>
          <tr>
            <th scope="col">Score</th>
            {series.map(({ key, word }) => (
              <th key={key} scope="col">
                {word}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {values.good.map((_, bar) => (
            <tr key={bar}>
              <th scope="row">{`${bar * step} to ${bar === bars - 1 ? 100 : (bar + 1) * step - 1}`}</th>
              {series.map(({ key }) => (
                <td key={key}>{count(values[key][bar])}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface ScoreChartProps {
  report: FilterReport;
  line: number | null;
}

/** The mail here by score, with the line drawn in; and the same as a table for who does not see it. */
export function ScoreChart({ report, line }: ScoreChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart | null>(null);
  const lineAt = useRef(line);
  const theme = usePreferences((s) => s.theme);
  const values = useMemo(() => scoreBars(report.spread), [report]);

  useEffect(() => {
    if (!canvas.current) return;
    chart.current = drawnChart(canvas.current, values, () => lineAt.current);
    return () => {
      chart.current?.destroy();
      chart.current = null;
    };
    // Drawn anew for other mail or another theme; the line alone is moved below.
  }, [values, theme]);

  useEffect(() => {
    lineAt.current = line;
    chart.current?.draw();
  }, [line]);

  return (
    <>
      <div className="h-64" aria-hidden>
        <canvas ref={canvas} />
      </div>
      <ScoreTable values={values} />
    </>
  );
}
