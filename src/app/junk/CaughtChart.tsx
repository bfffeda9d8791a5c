import { Chart, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { useCallback, useMemo } from 'react';
import { caughtAndLost } from '../../core/junk/atLine';
import type { FilterReport } from '../../mailroom/border/junk';
import { HiddenTable } from './HiddenTable';
import { linePlugin } from './scoreLine';
import { useLinedChart, type Drawing } from './useLinedChart';

Chart.register(LineController, LineElement, PointElement, LinearScale, Legend, Tooltip);

/** Told apart without colour, too: one line is whole, the other broken. */
const series = [
  { key: 'caught', word: 'Junk caught', colour: '#9c3a24', dash: [] },
  { key: 'lost', word: 'Wanted mail lost', colour: '#2b8474', dash: [4, 4] },
] as const;

/** Every so many strictnesses stands in the table. */
const tableStep = 5;

type Curve = ReturnType<typeof caughtAndLost>;

function drawnChart(curve: Curve, most: number, { canvas, ink, font, colour, lineNow }: Drawing<number>): Chart {
  Chart.defaults.font.family = getComputedStyle(canvas).fontFamily;
  const axis = (text: string, max: number) => ({
    type: 'linear' as const,
    min: 0,
    max,
    ticks: { color: ink, maxRotation: 0 },
    title: { display: true, text, color: ink },
    grid: { color: colour('--color-base-300') },
  });
  return new Chart(canvas, {
    type: 'line',
    data: {
      datasets: series.map(({ key, word, colour: stroke, dash }) => ({
        label: word,
        data: curve.map((at) => ({ x: at.strictness, y: at[key] })),
        borderColor: stroke,
        backgroundColor: stroke,
        borderDash: [...dash],
        borderWidth: 2,
        pointRadius: 0,
        stepped: 'before' as const,
      })),
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      color: ink,
      scales: { x: axis('Strictness', most), y: axis('Per cent', 100) },
      plugins: { legend: { position: 'bottom', labels: { color: ink, boxWidth: 24, boxHeight: 2 } } },
    },
    plugins: [
      linePlugin(
        () => (lineNow() > 0 ? { share: lineNow() / most, says: `strictness ${lineNow()}` } : null),
        ink,
        font,
      ),
    ],
  });
}

interface CaughtChartProps {
  validated: FilterReport['validated'];
  strictness: number;
  /** The greatest strictness that can be chosen. */
  most: number;
}

/** How much junk would be caught and wanted mail lost at each strictness, on what the person marked. */
export function CaughtChart({ validated, strictness, most }: CaughtChartProps) {
  const curve = useMemo(() => caughtAndLost(validated, most), [validated, most]);
  const draw = useCallback((drawing: Drawing<number>) => drawnChart(curve, most, drawing), [curve, most]);
  const canvas = useLinedChart(draw, strictness);
  return (
    <>
      <div className="h-52" aria-hidden>
        <canvas ref={canvas} />
      </div>
      <HiddenTable
        caption="Junk caught and wanted mail lost, by strictness"
        columns={['Strictness', ...series.map(({ word }) => word)]}
        rows={curve
          .filter((at) => at.strictness % tableStep === 0)
          .map((at) => ({
            head: String(at.strictness),
            cells: series.map(({ key }) => `${at[key].toFixed(1)} %`),
          }))}
      />
    </>
  );
}
