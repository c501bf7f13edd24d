import { Download, Upload } from 'lucide-react';
import { useRef } from 'react';
import type { CourseImportReply } from '#contract/courses';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { usePlanCourseImport } from './queries';

/** Reads a file of courses and tells what it would change. */
export function ImportButton({ schoolId, onPlan }: { schoolId: number; onPlan: (plan: CourseImportReply) => void }) {
  const file = useRef<HTMLInputElement>(null);
  const plan = usePlanCourseImport(schoolId);
  return (
    <>
      <Button disabled={plan.isPending} onClick={() => file.current?.click()}>
        <Upload size={14} aria-hidden /> Import
      </Button>
      <input
        ref={file}
        type="file"
        aria-label="File of courses"
        accept=".csv,.xlsx,.txt"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) plan.mutate(chosen, { onSuccess: onPlan, onError: showProblem });
          event.target.value = '';
        }}
      />
    </>
  );
}

/** The courses as files that can be imported again. */
export function ExportLinks({ schoolId }: { schoolId: number }) {
  return (
    <span className="flex items-center gap-3">
      <Download size={14} aria-hidden />
      {(['csv', 'xlsx'] as const).map((type) => (
        <a
          key={type}
          href={`/api/schools/${schoolId}/courses/export?type=${type}`}
          className="font-semibold text-eucalypt hover:underline"
        >
          {type.toUpperCase()}
        </a>
      ))}
    </span>
  );
}
