import { Link } from 'react-router';
import type { LogEntryReply } from '#contract/changes';
import { useScope } from '../shell/scope';
import { showInstant } from '../ui/format';
import { ThingHistory } from './thing-history';

/** One entry with every fact before and after, and all else that was done to the thing, with its undo. */
export function LogEntryDetails({ entry }: { entry: LogEntryReply }) {
  const { path } = useScope();
  const { at, actor, action, called, thing, why, hash, fields } = entry;
  return (
    <div className="space-y-4">
      <div>
        <h3 className="text-[17px] leading-snug font-bold first-letter:uppercase">{action}</h3>
        <p className="text-quiet">
          {showInstant(at)}, {actor}
        </p>
        {why && <p>Reason: {why}</p>}
      </div>
      <section>
        <h4 className="mb-1 font-bold first-letter:uppercase">{called}</h4>
        <table className="w-full text-[13px]">
          <thead>
            <tr className="text-left text-quiet [&_th]:pr-2 [&_th]:font-semibold">
              <th>Fact</th>
              <th>Before</th>
              <th>After</th>
            </tr>
          </thead>
          <tbody>
            {fields.map(({ field, before, after }) => (
              <tr key={field} className="border-t border-hairline align-top [&_td]:py-1 [&_td]:pr-2 [&_td]:break-words">
                <td className="text-quiet first-letter:uppercase">{field}</td>
                <td>{before}</td>
                <td className="font-semibold">{after}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {fields.length === 0 && <p className="text-quiet">No fact of it changed.</p>}
      </section>
      <section>
        <h4 className="font-bold">All changes of it</h4>
        <ThingHistory thing={thing} />
        <Link
          to={path(`log?thing=${encodeURIComponent(thing)}`)}
          className="text-[13px] font-semibold text-eucalypt hover:underline"
        >
          Show only its entries
        </Link>
      </section>
      <p className="figures text-[11px] break-all text-quiet">Fingerprint {hash}</p>
    </div>
  );
}
