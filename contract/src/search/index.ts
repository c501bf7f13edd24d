/** Something that has a name, and what tells it from others of that name. */
export interface NamedHitReply {
  readonly kind: 'student' | 'staff' | 'course' | 'section';
  readonly id: number;
  readonly title: string;
  readonly detail: string;
  /** Null for staff of no school. */
  readonly schoolId: number | null;
}

/** What the last audit of a period found: by a rule, or of a student. */
export interface FindingHitReply {
  readonly kind: 'finding';
  /** The finding's own number; of a rule, that of its first. */
  readonly id: number;
  readonly title: string;
  readonly detail: string;
  readonly schoolId: number;
  readonly periodId: number;
  /** What stands behind the question mark of the address of the findings. */
  readonly filter: { readonly rule: string } | { readonly finding: string };
}

/** Something that was found. */
export type SearchHitReply = NamedHitReply | FindingHitReply;
