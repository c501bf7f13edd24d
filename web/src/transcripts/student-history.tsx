import { Download } from 'lucide-react';
import { ThingHistory } from '../changes/thing-history';
import { Awaited } from '../shell/awaited';
import { showInstant } from '../ui/format';
import { useReadings } from './queries';

/** What was changed of a student's record, and who read it. */
export function StudentHistory({ studentId, showsReaders }: { studentId: number; showsReaders: boolean }) {
  return (
    <div className="space-y-5">
      <section>
        <h3 className="mb-1 font-bold">Changed</h3>
        <ThingHistory thing={`person ${studentId}`} />
      </section>
      {showsReaders && (
        <section aria-label="Read by">
          <div className="mb-1 flex items-baseline gap-3">
            <h3 className="font-bold">Read by</h3>
            <span className="ml-auto flex items-center gap-2 text-[13px] font-semibold text-eucalypt">
              <Download size={14} aria-hidden />
              {(['csv', 'xlsx'] as const).map((type) => (
                <a key={type} href={`/api/students/${studentId}/readings/export?type=${type}`} download>
                  {type.toUpperCase()}
                </a>
              ))}
            </span>
          </div>
          <Readers studentId={studentId} />
        </section>
      )}
    </div>
  );
}

function Readers({ studentId }: { studentId: number }) {
  return (
    <Awaited query={useReadings(studentId)} waiting="Looking who read it">
      {(readings) => (
        <ul className="divide-y divide-hairline">
          {readings.map(({ id, at, actor, part }) => (
            <li key={id} className="flex gap-3 py-1.5 text-[13px]">
              <b className="font-semibold">{actor}</b>
              <span className="text-quiet">{part}</span>
              <span className="figures ml-auto">{showInstant(at)}</span>
            </li>
          ))}
        </ul>
      )}
    </Awaited>
  );
}
