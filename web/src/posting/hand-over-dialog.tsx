import { counted } from '#contract/messages';
import { AnswerDialog } from './answer-dialog';

interface HandOverDialogProps {
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
  readonly grades: number;
  readonly periodName: string;
  readonly onHandOver: (note: string) => void;
}

/** Where a window has closed under somebody's hands: what they typed goes to a registrar. */
export function HandOverDialog({ isOpen, onOpenChange, grades, periodName, onHandOver }: HandOverDialogProps) {
  return (
    <AnswerDialog
      isOpen={isOpen}
      onOpenChange={onOpenChange}
      title={`Hand ${counted(grades, 'grade')} to the registrar?`}
      description={`The window of ${periodName} is closed. A registrar sees what you typed and posts it or tells you why not.`}
      label="Why it comes now"
      action="Hand over"
      onAnswer={onHandOver}
    />
  );
}
