import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import type { DistributionReply, MeanShiftReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { Awaited } from '../shell/awaited';
import { showLabel, showPercent } from '../ui/format';
import { themeColour } from '../ui/theme-colour';
import { useDistributions, type SheetOfPeriod } from './queries';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

/** The labels of a section beside those of its sister sections and of earlier periods, for the drawer; the numbers stand below. */
export default function Distributions({ sheet }: { sheet: SheetOfPeriod }) {
  return (
    <Awaited query={useDistributions(sheet)} waiting="Counting the labels">
      {({ labels, own, sisters, earlier, shift }) => {
        const all = [...(own ? [own] : []), ...sisters, ...earlier];
        if (all.length === 0) return <p className="text-quiet">Of fewer than ten grades nothing is told.</p>;
        const most = Math.max(...all.flatMap((each) => each.counts.map((count) => count / each.grades)));
        return (
          <>
            {own && <Multiple {...{ labels, most }} of={own} isOwn />}
            {shift && <p className="mt-2 text-[13px]">{shiftInWords(shift)}</p>}
            <Multiples title="Sister sections" {...{ labels, most }} all={sisters} />
            <Multiples title="Before" {...{ labels, most }} all={earlier} />
            <Counts labels={labels} all={all} />
          </>
        );
      }}
    </Awaited>
  );
}

/** How far the means lie apart, and how sure that is; nothing more, as why is for people to say. */
function shiftInWords({ shift, low, high, own, others }: MeanShiftReply): string {
  const [value, side] = shift.startsWith('-') ? [shift.slice(1), 'below'] : [shift, 'above'];
  return (
    `The mean of its ${own} percentages lies ${showPercent(value)} points ${side} that of the ${others} of its sister sections` +
    ` (95 % interval from ${showPercent(low)} to ${showPercent(high)}).`
  );
}

interface Axes {
  readonly labels: readonly string[];
  /** The largest share in any of them: all have one axis, so that they can be compared by eye. */
  readonly most: number;
}

function Multiples({ title, all, ...axes }: Axes & { title: string; all: readonly DistributionReply[] }) {
  if (all.length === 0) return null;
  return (
    <section aria-label={title}>
      <h3 className="mt-4 text-[13px] font-semibold text-quiet">{title}</h3>
      {all.map((each) => (
        <Multiple key={each.name} of={each} {...axes} />
      ))}
    </section>
  );
}

function Multiple({ of, labels, most, isOwn = false }: Axes & { of: DistributionReply; isOwn?: boolean }) {
  const ink = themeColour('--quiet');
  return (
    <figure className="mt-2">
      <figcaption className="flex justify-between text-[13px]">
        <b className="font-semibold">{of.name}</b>
        <span className="text-quiet">{counted(of.grades, 'grade')}</span>
      </figcaption>
      <div className="h-[64px]">
        <Bar
          role="img"
          aria-label={`Labels of ${of.name}`}
          data={{
            labels: labels.map(showLabel),
            datasets: [
              {
                label: '% of its grades',
                data: of.counts.map((count) => (100 * count) / of.grades),
                backgroundColor: themeColour(isOwn ? '--eucalypt' : '--eucalypt-mid'),
              },
            ],
          }}
          options={{
            maintainAspectRatio: false,
            animation: false,
            plugins: { legend: { display: false } },
            scales: {
              x: {
                grid: { display: false },
                ticks: {
                  color: ink,
                  autoSkip: false,
                  maxRotation: 0,
                  font: { family: 'Atkinson Hyperlegible Next Variable', size: 11 },
                },
              },
              y: { display: false, min: 0, max: 100 * most },
            },
          }}
        />
      </div>
    </figure>
  );
}

/** The numbers behind the pictures. */
function Counts({ labels, all }: { labels: readonly string[]; all: readonly DistributionReply[] }) {
  return (
    <div className="mt-4 overflow-x-auto">
      <table className="text-[12px]">
        <caption className="text-left text-[13px] font-semibold text-quiet">Grades of each label</caption>
        <thead>
          <tr className="text-quiet">
            <th scope="col" className="pr-3 text-left font-normal">
              Section or period
            </th>
            {labels.map((label) => (
              <th key={label} scope="col" className="px-1 text-right font-normal">
                {showLabel(label)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {all.map(({ name, counts }) => (
            <tr key={name} className="border-t border-hairline">
              <th scope="row" className="pr-3 text-left font-normal whitespace-nowrap">
                {name}
              </th>
              {counts.map((count, at) => (
                <td key={labels[at]} className="figures px-1 text-right">
                  {count}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
