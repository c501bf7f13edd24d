import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import type { BandBody } from '#contract/scales';
import { showLabel } from '../../ui/format';
import { themeColour } from '../../ui/theme-colour';
import { countsOf, effectLabels, type Moves } from './effect-labels';

Chart.register(BarController, BarElement, CategoryScale, Legend, LinearScale, Tooltip);

/** Grades of each label now and as they would be. The matrix beside it is its table. */
export function EffectChart({ effect, bands }: { effect: Moves; bands: readonly BandBody[] }) {
  const labels = effectLabels(effect, bands);
  const counts = labels.map((label) => countsOf(effect, label));
  const ink = themeColour('--quiet');
  const font = { family: 'Atkinson Hyperlegible Next Variable', size: 12 };
  return (
    <div className="h-[260px]">
      <Bar
        role="img"
        aria-label="Grades of each label now and with the draft"
        data={{
          labels: labels.map((label) => (label === null ? 'none' : showLabel(label))),
          datasets: [
            { label: 'now', data: counts.map(({ before }) => before), backgroundColor: themeColour('--eucalypt-mid') },
            {
              label: 'with the draft',
              data: counts.map(({ after }) => after),
              backgroundColor: themeColour('--eucalypt'),
            },
          ],
        }}
        options={{
          maintainAspectRatio: false,
          animation: false,
          plugins: { legend: { position: 'bottom', labels: { color: ink, font, boxWidth: 12 } } },
          scales: {
            x: {
              grid: { display: false },
              ticks: { color: ink, font: { ...font, size: 11 }, autoSkip: false, maxRotation: 0 },
            },
            y: { grid: { color: themeColour('--hairline') }, ticks: { color: ink, font, precision: 0 } },
          },
        }}
      />
    </div>
  );
}
