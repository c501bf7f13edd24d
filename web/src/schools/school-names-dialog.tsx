import { useState } from 'react';
import type { SchoolNamesReply } from '#contract/schools';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { ProblemError } from '../shell/api';
import { Awaited } from '../shell/awaited';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { DistrictFields } from './district-fields';
import { useRenameSchool, useSchoolNames } from './queries';
import { SchoolFields } from './school-fields';

interface SchoolNamesDialogProps {
  readonly schoolId: number;
  readonly onClose: () => void;
}

/** Gives a school and its district other names, and says in which zone their days begin. */
export function SchoolNamesDialog({ schoolId, onClose }: SchoolNamesDialogProps) {
  const kept = useSchoolNames(schoolId);
  const [typed, setTyped] = useState<Partial<SchoolNamesReply>>({});
  const rename = useRenameSchool(schoolId);
  const tellOfChange = useTellOfChange();
  const problem = rename.error instanceof ProblemError ? rename.error : undefined;
  const faultOf = (field: string) => problem?.fault(field);
  // What nobody typed here is as it is kept, also where somebody else changed it meanwhile.
  const shown = kept.data && { ...kept.data, ...typed };
  const isWhole =
    shown !== undefined &&
    [shown.name, shown.shortName, shown.code, shown.district.name].every((text) => text.trim() !== '');
  const save = (names: SchoolNamesReply) =>
    rename.mutate(names, {
      onSuccess: (after) => {
        tellOfChange(`${after.shortName} and the district are called so now.`, after);
        onClose();
      },
      onError: () => void kept.refetch(),
    });
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Names of the school and its district"
      description="A roster that brought them writes its own names again with its next import."
      footer={
        <>
          <Button
            look="main"
            writes={false}
            disabled={!isWhole || rename.isPending}
            onClick={() => shown && save(shown)}
          >
            Save
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <Awaited query={kept} waiting="Looking for the names">
        {(names) => (
          <div className="space-y-3.5">
            <SchoolFields
              school={{ ...names, ...typed }}
              faultOf={faultOf}
              onChange={(part) => setTyped({ ...typed, ...part })}
            />
            <DistrictFields
              district={typed.district ?? names.district}
              faultOf={faultOf}
              onChange={(district) => setTyped({ ...typed, district })}
            />
            {problem && problem.problem.errors.length === 0 && (
              <p role="alert" className="text-waratah">
                {problem.problem.detail}
              </p>
            )}
          </div>
        )}
      </Awaited>
    </Dialog>
  );
}
