/** Something that was found, and what tells it from others of its name. */
export interface SearchHitReply {
  readonly kind: 'student' | 'staff' | 'course' | 'section';
  readonly id: number;
  readonly title: string;
  readonly detail: string;
  /** Null for staff of no school. */
  readonly schoolId: number | null;
}
