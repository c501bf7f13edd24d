export interface SearchHitReply {
  readonly kind: 'student' | 'section';
  readonly id: number;
  readonly title: string;
  readonly detail: string;
  readonly schoolId: number;
}
