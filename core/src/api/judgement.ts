import type { JudgementWord } from '../judgement/records';

/** A word against a verdict, with who said it. */
export interface JudgementWordView extends JudgementWord {
  person: string;
}
