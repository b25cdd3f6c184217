/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import { useState } from 'react';
import type { Gate } from '@wunsch/core/gates/gate';
import { GatePanel, type Answer } from '../src/entry/GatePanel';
import { field, fill, hands, press, show } from './page';

/* A stop, and the way past it. */

const stop = (id: string): Gate => ({ id, sentence: 'Not yet.', why: 'Too young.', todo: 'Wait.', path: 'sources' });
const WORD = /^To go on all the same/;

let answers: Answer[][] = [];
function Stopped({ ids }: { ids: string[] }) {
  const [word, setWord] = useState('');
  const goOn = (given: Answer[]): void => {
    answers.push(given);
  };
  return <GatePanel word={word} setWord={setWord} gates={ids.map(stop)} person="Ilse" busy={false} goOn={goOn} />;
}

beforeEach(() => {
  answers = [];
});

test('each stop is answered with the word, by a press or by Enter; a word is at least three letters', async () => {
  show(<Stopped ids={['rest/too-young', 'grind/raw']} />);
  await fill(WORD, 'ok');
  await hands.keyboard('{Enter}');
  expect(answers).toEqual([]);
  await fill(WORD, 'First bowl');
  await press('Go on, Ilse answers for it');
  await hands.type(field(WORD), '{Enter}');
  const both = [
    { gate: 'rest/too-young', word: 'First bowl' },
    { gate: 'grind/raw', word: 'First bowl' },
  ];
  expect(answers).toEqual([both, both]);
});

test('a stop below the fold comes into view, and so does another', () => {
  const brought = jest.spyOn(Element.prototype, 'scrollIntoView');
  const { rerender } = render(<Stopped ids={['rest/too-young']} />);
  rerender(<Stopped ids={['rest/too-young']} />);
  expect(brought.mock.contexts).toEqual([screen.getByRole('alert', { name: 'Stop' })]);
  rerender(<Stopped ids={['grind/raw']} />);
  expect(brought).toHaveBeenCalledTimes(2);
  brought.mockRestore();
});
