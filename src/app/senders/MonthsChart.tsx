import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { format } from 'date-fns';
import { useEffect, useRef } from 'react';
import type { SenderReport } from '../../mailroom/border/senderTable';
import { usePreferences } from '../state/preferences';
import { messages } from '../../core/text/sentences';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Legend, Tooltip);

const nameOf = (month: string, pattern: string) => format(new Date(`${month}-01T00:00`), pattern);

/** A sender's messages of the last twelve months, read and unread; and the same in words. */
export function MonthsChart({ months }: { months: SenderReport['months'] }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = usePreferences((s) => s.theme);
  const total = months.reduce((n, month) => n + month.messages, 0);
  const most = months.reduce((a, b) => (b.messages > a.messages ? b : a));
  useEffect(() => {
    if (!canvas.current) return;
    const style = getComputedStyle(canvas.current);
    const ink = style.getPropertyValue('--color-base-content').trim() || 'gray';
    Chart.defaults.font.family = style.fontFamily;
    const chart = new Chart(canvas.current, {
      type: 'bar',
      data: {
        labels: months.map(({ month }) => nameOf(month, 'MMM')),
        datasets: [
          { label: 'Read', data: months.map((m) => m.messages - m.unread), backgroundColor: '#2b8474' },
          { label: 'Unread', data: months.map((m) => m.unread), backgroundColor: '#d9a441' },
        ],
      },
      options: {
        responsive: true,
        maintainAspectRatio: false,
        animation: false,
        scales: {
          x: { stacked: true, ticks: { color: ink }, grid: { display: false } },
          y: {
            stacked: true,
            beginAtZero: true,
            ticks: { color: ink, precision: 0 },
            grid: { color: 'rgba(128, 128, 128, 0.25)' },
          },
        },
        plugins: { legend: { labels: { color: ink, boxWidth: 12 } } },
      },
    });
    return () => chart.destroy();
  }, [months, theme]);
  return (
    <figure className="m-0">
      <div className="h-36">
        <canvas
          ref={canvas}
          role="img"
          aria-label={`Messages of twelve months: ${messages(total)}, most of them in ${nameOf(most.month, 'MMMM yyyy')} (${most.messages})`}
        />
      </div>
    </figure>
  );
}
