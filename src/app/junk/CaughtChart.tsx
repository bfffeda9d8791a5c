import { Chart, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { useEffect, useMemo, useRef } from 'react';
import { caughtAndLost } from '../../core/junk/atLine';
import type { FilterReport } from '../../mailroom/border/junk';
import { usePreferences } from '../state/preferences';
import { linePlugin } from './scoreLine';

Chart.register(LineController, LineElement, PointElement, LinearScale, Legend, Tooltip);

/** Told apart without colour, too: one line is whole, the other broken. */
const series = [
  { key: 'caught', word: 'Junk caught', colour: '#9c3a24', dash: [] },
  { key: 'lost', word: 'Wanted mail lost', colour: '#2b8474', dash: [4, 4] },
] as const;

/** Every so many strictnesses stands in the table. */
const tableStep = 5;

type Curve = ReturnType<typeof caughtAndLost>;

function drawnChart(canvas: HTMLCanvasElement, curve: Curve, most: number, strictnessAt: () => number): Chart {
  const style = getComputedStyle(canvas);
  const colour = (name: string) => style.getPropertyValue(name).trim() || 'gray';
  const ink = colour('--color-base-content');
  Chart.defaults.font.family = style.fontFamily;
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
        () => (strictnessAt() > 0 ? { share: strictnessAt() / most, says: `strictness ${strictnessAt()}` } : null),
        ink,
        style.font,
      ),
    ],
  });
}

/** The same as a table, for who does not see the chart. */
function CaughtTable({ curve }: { curve: Curve }) {
  // A table keeps the width that its words need: only what is around it can be hidden.
  return (
    <div className="sr-only">
      <table>
        <caption>Junk caught and wanted mail lost, by strictness</caption>
        <thead>
          <tr>
            <th scope="col">Strictness</th>
            {series.map(({ key, word }) => (
              <th key={key} scope="col">
                {word}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {curve
            .filter(({ strictness }) => strictness % tableStep === 0)
            .map((at) => (
              <tr key={at.strictness}>
                <th scope="row">{at.strictness}</th>
                {series.map(({ key }) => (
                  <td key={key}>{at[key].toFixed(1)} %</td>
                ))}
              </tr>
            ))}
        </tbody>
      </table>
    </div>
  );
}

interface CaughtChartProps {
  validated: FilterReport['validated'];
  strictness: number;
  /** The greatest strictness that can be chosen. */
  most: number;
}

/** How much junk would be caught and wanted mail lost at each strictness, on what the person marked. */
export function CaughtChart({ validated, strictness, most }: CaughtChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart | null>(null);
  const strictnessAt = useRef(strictness);
  const theme = usePreferences((s) => s.theme);
  const curve = useMemo(() => caughtAndLost(validated, most), [validated, most]);

  useEffect(() => {
    if (!canvas.current) return;
    chart.current = drawnChart(canvas.current, curve, most, () => strictnessAt.current);
    return () => {
      chart.current?.destroy();
      chart.current = null;
    };
    // Drawn anew for other marks or another theme; the line alone is moved below.
  }, [curve, most, theme]);

  useEffect(() => {
    strictnessAt.current = strictness;
    chart.current?.draw();
  }, [strictness]);

  return (
    <>
      <div className="h-52" aria-hidden>
        <canvas ref={canvas} />
      </div>
      <CaughtTable curve={curve} />
    </>
  );
}
