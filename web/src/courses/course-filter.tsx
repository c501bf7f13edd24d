import { Select } from '../ui/choice/select';

interface CourseFilterProps {
  readonly departments: readonly string[];
  /** Empty for all of them. */
  readonly department: string;
  readonly text: string;
  readonly onDepartment: (department: string) => void;
  readonly onText: (text: string) => void;
}

/** Which courses are shown, and how they are edited. */
export function CourseFilter({ departments, department, text, onDepartment, onText }: CourseFilterProps) {
  return (
    <div className="flex items-center gap-3 border-b border-hairline px-4 py-1.5">
      <input
        aria-label="Find in the courses"
        placeholder="find by title or code"
        value={text}
        onChange={(event) => onText(event.target.value)}
        className="h-7 w-[200px] rounded border border-control bg-surface px-2"
      />
      <Select
        aria-label="Department shown"
        value={department}
        onChange={(event) => onDepartment(event.target.value)}
        className="h-7 rounded border border-control bg-surface px-1.5"
      >
        <option value="">all departments</option>
        {departments.map((name) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </Select>
      <span className="text-[12px] text-quiet">
        Type to replace, Enter to edit, paste a block, Ctrl D fills down, Space selects. Grey italics are inherited.
      </span>
    </div>
  );
}
