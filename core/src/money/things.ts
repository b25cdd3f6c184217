import { madeOf, type StepThings } from '../workshop/things';

/** What was bought for the pantry. */
export const boughtThings: StepThings = {
  kinds: ['ingredient', 'packaging'],
  begins: (step, book) => {
    const id = madeOf(step);
    return [{ kind: book.holdings.get(id)?.kind === 'packaging' ? 'packaging' : 'ingredient', id }];
  },
  brings: true,
};
