/** @jest-environment jsdom */
import { cleanup, render, screen } from '@testing-library/react';
import type { Gate } from '@wunsch/core/gates/gate';
import { GatePanel, type Answer } from '../src/entry/GatePanel';
import { field, fill, hands, press, show } from './page';

/* A stop, and the way past it. */

const stop = (id: string): Gate => ({ id, sentence: 'Not yet.', why: 'Too young.', todo: 'Wait.', path: 'sources' });
const WORD = /^To go on all the same/;

let answers: Answer[][] = [];
function stopped(ids: string[], of = 'rest') {
  return show(
    <GatePanel
      of={of}
      gates={ids.map(stop)}
      person="Ilse"
      busy={false}
      goOn={(given) => {
        answers.push(given);
      }}
    />,
  );
}
/** What a reload does: the page is gone before it can tidy up. */
function reload(): void {
  const kept = Object.keys(localStorage).map((name) => [name, localStorage.getItem(name) ?? ''] as const);
  cleanup();
  for (const [name, text] of kept) localStorage.setItem(name, text);
}

beforeEach(() => {
  localStorage.clear();
  answers = [];
});

test('each stop is answered with the word, by a press or by Enter; a word is at least three letters', async () => {
  stopped(['rest/too-young', 'grind/raw']);
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
  const panel = (id: string) => (
    <GatePanel of="rest" gates={[stop(id)]} person="Ilse" busy={false} goOn={() => undefined} />
  );
  const { rerender } = render(panel('rest/too-young'));
  rerender(panel('rest/too-young'));
  expect(brought.mock.contexts).toEqual([screen.getByRole('alert', { name: 'Stop' })]);
  rerender(panel('grind/raw'));
  expect(brought).toHaveBeenCalledTimes(2);
  brought.mockRestore();
});

test('half the word is there after a reload, for this entry and this stop only', async () => {
  stopped(['rest/too-young']);
  await fill(WORD, 'To see the wh');
  reload();
  stopped(['rest/too-young'], 'grind').unmount();
  stopped(['grind/raw']).unmount();
  stopped(['rest/too-young']);
  expect(field(WORD).value).toBe('To see the wh');
});

test('once it is gone past or thrown away the next stop begins without a word', async () => {
  const first = stopped(['rest/too-young']);
  await fill(WORD, 'To see the whole way');
  first.unmount();
  stopped(['rest/too-young']);
  expect(field(WORD).value).toBe('');
});
