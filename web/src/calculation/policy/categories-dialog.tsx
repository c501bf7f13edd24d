import { useState } from 'react';
import type { BookReply, CalculationReply } from '#contract/calculation';
import { useScope } from '../../shell/scope';
import { Choice } from '../../ui/field';
import { CategoryList } from './category-list';
import { useSaveBookCategories, useSaveCategories } from '../queries';

interface CategoriesDialogProps {
  readonly reply: CalculationReply;
  readonly onClose: () => void;
}

/** The categories of the school, which teachers cannot change, and those of single sections. */
export function CategoriesDialog({ reply, onClose }: CategoriesDialogProps) {
  const { schoolId } = useScope();
  const [sectionId, setSectionId] = useState<number | null>(null);
  const save = useSaveCategories(schoolId, sectionId);
  const revision =
    sectionId === null ? reply.revision : reply.books.find((book) => book.sectionId === sectionId)!.revision;
  return (
    <CategoryList
      key={sectionId}
      saved={reply.categories.filter((category) => category.sectionId === sectionId)}
      revision={revision}
      save={save}
      onClose={onClose}
      description={
        <>
          Those of{' '}
          <Choice
            label="Whose categories"
            value={sectionId ?? ''}
            onChange={(event) => setSectionId(event.target.value === '' ? null : Number(event.target.value))}
          >
            <option value="">the school</option>
            {reply.books.map((book) => (
              <option key={book.sectionId} value={book.sectionId}>
                {book.section} alone
              </option>
            ))}
          </Choice>
          , in the order in which grade books show them.
        </>
      }
    />
  );
}

/** The categories of one section, kept by its teacher beside those of the school. */
export function BookCategoriesDialog({ book, onClose }: { readonly book: BookReply; readonly onClose: () => void }) {
  const save = useSaveBookCategories(book.sectionId, book.period.id);
  return (
    <CategoryList
      saved={book.categories.filter(({ sectionId }) => sectionId !== null)}
      locked={book.categories.filter(({ sectionId }) => sectionId === null)}
      revision={book.revision}
      save={save}
      onClose={onClose}
      description={`Of ${book.section} alone. What they weigh is in the policy, which the registrar sets.`}
    />
  );
}
