// npm run bench: measures against peers and limits, each pair in one run, and writes docs/bench.md. With names, such as
// npm run bench -- start recompute, it measures those files anew and leaves the other rows as they were measured last.
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { cpus, totalmem } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, install, root } from './steps.mjs';

install();
build();

const names = process.argv.slice(2);
/** The rows as they were measured last, by what they measure. */
const lastRows = new Map(
  readFileSync(join(root, 'docs/bench.md'), 'utf8')
    .split('\n')
    .filter((line) => line.startsWith('| '))
    .map((line) => {
      const row = line.split('|').slice(1, -1);
      return row.map((cell) => cell.trim());
    })
    .map((row) => [row[0], row]),
);
const rows = [];
for (const file of readdirSync(join(root, 'bench'))
  .filter((name) => name.endsWith('.mjs'))
  .toSorted()) {
  const { measurements } = await import(pathToFileURL(join(root, 'bench', file)).href);
  for (const { what, against, limit, measure, unit } of measurements) {
    const last = lastRows.get(what);
    if (last && names.length > 0 && !names.includes(file.replace('.mjs', ''))) {
      rows.push(last);
      continue;
    }
    const { ours, peer } = await measure();
    const ratio = ours / peer;
    const verdict = ratio <= limit ? 'holds' : 'BROKEN';
    const show = unit ? (value) => `${value.toPrecision(3)} ${unit}` : time;
    rows.push([what, against, show(ours), show(peer), ratio.toPrecision(2), `≤ ${limit}`, verdict]);
    console.log(
      `${verdict.padEnd(7)} ${ratio.toPrecision(2).padStart(8)} (limit ${limit})  ${what}, against ${against}`,
    );
  }
}
const table = [['what', 'against', 'ours', 'peer', 'ratio', 'limit', ''], Array(7).fill('---'), ...rows].map(
  (row) => `| ${row.join(' | ')} |`,
);
writeFileSync(
  join(root, 'docs/bench.md'),
  `# Measurements

Written by \`npm run bench\`. Each ratio comes from one run on one machine, ours and the peer's one after the other, medians
of several rounds; only the ratios mean anything elsewhere. Last run: Node.js ${process.versions.node}, ${cpus().length} × ${cpus()[0].model.trim()},
${Math.round(totalmem() / 2 ** 30)} GB.

${table.join('\n')}

What each one is for:

${readdirSync(join(root, 'bench'))
  .filter((name) => name.endsWith('.mjs'))
  .toSorted()
  .map((name) => `- \`bench/${name}\``)
  .join('\n')}
`,
);
execFileSync(process.execPath, [join(root, 'node_modules/oxfmt/bin/oxfmt'), 'docs/bench.md'], {
  cwd: root,
});
process.exit(rows.some((row) => row.at(-1) === 'BROKEN') ? 1 : 0);

function time(milliseconds) {
  return milliseconds < 1
    ? `${(milliseconds * 1000).toFixed(0)} µs`
    : milliseconds < 1000
      ? `${milliseconds.toFixed(1)} ms`
      : `${(milliseconds / 1000).toFixed(2)} s`;
}
