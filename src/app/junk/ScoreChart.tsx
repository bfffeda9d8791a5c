import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { useCallback, useMemo } from 'react';
import { barCount as bars, scoreBars, scoresInBar as step } from '../../core/junk/scoreBars';
import type { FilterReport } from '../../mailroom/border/junk';
import { count } from '../../core/text/sentences';
import { HiddenTable } from './HiddenTable';
import { linePlugin } from './scoreLine';
import { useLinedChart, type Drawing } from './useLinedChart';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Legend, Tooltip);

/** The series from the bottom up: light beside dark, so that they are told apart without colour and in either theme. */
const series = [
  { key: 'good', word: 'Marked as not junk', colour: '#a9d6cd' },
  { key: 'inbox', word: 'In the Inbox', colour: '#2b8474' },
  { key: 'unmarked', word: 'In Junk', colour: '#d9a441' },
  { key: 'junk', word: 'Marked as junk', colour: '#9c3a24' },
] as const;

type Values = ReturnType<typeof scoreBars>;

const scoresOf = (bar: number, to: string) => `${bar * step}${to}${bar === bars - 1 ? 100 : (bar + 1) * step - 1}`;

/** The chart on its canvas, in the colours of the theme. */
function drawnChart(values: Values, { canvas, ink, font, colour, lineNow }: Drawing<number | null>): Chart {
  Chart.defaults.font.family = getComputedStyle(canvas).fontFamily;
  return new Chart(canvas, {
    type: 'bar',
    data: {
      labels: Array.from({ length: bars }, (_, bar) => scoresOf(bar, '–')),
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
          const line = lineNow();
          return line === null ? null : { share: line / 100, says: `line at ${line}` };
        },
        ink,
        font,
      ),
    ],
  });
}

interface ScoreChartProps {
  report: FilterReport;
  line: number | null;
}

/** The mail here by score, with the line drawn in; and the same as a table for who does not see it. */
export function ScoreChart({ report, line }: ScoreChartProps) {
  const values = useMemo(() => scoreBars(report.spread), [report]);
  const draw = useCallback((drawing: Drawing<number | null>) => drawnChart(values, drawing), [values]);
  const canvas = useLinedChart(draw, line);
  return (
    <>
      <div className="h-64" aria-hidden>
        <canvas ref={canvas} />
      </div>
      <HiddenTable
        caption="Messages by score"
        columns={['Score', ...series.map(({ word }) => word)]}
        rows={values.good.map((_, bar) => ({
          head: scoresOf(bar, ' to '),
          cells: series.map(({ key }) => count(values[key][bar])),
        }))}
      />
    </>
  );
}
