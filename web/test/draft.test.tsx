/** @jest-environment jsdom */
import { act, cleanup, renderHook } from '@testing-library/react';
import { draftOf, dropDraft, hasDraft, newKey, saveDraft, useDraft, useKept } from '../src/parts/draft';
import { NOBODY, somebody, useSave } from '../src/parts/save';
import { useWorked } from '../src/parts/worked';

/* What is typed and not saved; a save; what is worked out elsewhere while one goes on. */

afterEach(() => {
  cleanup();
  localStorage.clear();
  jest.restoreAllMocks();
});

interface Sheet {
  text: string;
}
const sheet = (id: string) =>
  renderHook((name: string) => useDraft<Sheet>(name, () => ({ text: '' })), { initialProps: id });

describe('a draft', () => {
  test('is there again after a reload, with the key that it is saved by', () => {
    const first = sheet('sort');
    expect(first.result.current).toMatchObject({ value: { text: '' }, touched: false });
    expect(hasDraft('sort')).toBe(false);
    act(() => first.result.current.set(() => ({ text: '4.2' })));
    const { key } = first.result.current;
    first.unmount();
    const again = sheet('sort');
    expect(again.result.current).toMatchObject({ value: { text: '4.2' }, touched: true, key });
    expect(draftOf<Sheet>('sort')).toEqual({ text: '4.2' });
  });

  test('of another subject is its own; turning to it and back loses neither', () => {
    const { result, rerender } = sheet('sort');
    act(() => result.current.set(() => ({ text: 'one' })));
    rerender('roast');
    expect(result.current).toMatchObject({ value: { text: '' }, touched: false });
    act(() => result.current.set(() => ({ text: 'two' })));
    rerender('sort');
    expect(result.current.value).toEqual({ text: 'one' });
    rerender('roast');
    expect(result.current.value).toEqual({ text: 'two' });
  });

  test('several changes of one moment all count', () => {
    const { result } = sheet('sort');
    act(() => {
      result.current.set(({ text }) => ({ text: `${text}1` }));
      result.current.set(({ text }) => ({ text: `${text}2` }));
    });
    expect(result.current.value.text).toBe('12');
  });

  test('once it is saved it is gone, and the next entry has a key of its own', () => {
    const { result } = sheet('sort');
    act(() => result.current.set(() => ({ text: '4.2' })));
    const { key } = result.current;
    act(() => result.current.clear());
    expect(result.current).toMatchObject({ value: { text: '' }, touched: false });
    expect(result.current.key).not.toBe(key);
    expect(hasDraft('sort')).toBe(false);
    expect(sheet('sort').result.current.touched).toBe(false);
  });

  test('what cannot be read is none; what cannot be kept costs its reload only', () => {
    localStorage.setItem('wunsch.draft.sort', '{"value": {"te');
    const { result } = sheet('sort');
    expect(result.current).toMatchObject({ value: { text: '' }, touched: false });
    jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    act(() => result.current.set(() => ({ text: '7' })));
    expect(result.current.value.text).toBe('7');
    expect(() => saveDraft('roast', { text: '8' }, 'k')).not.toThrow();
  });

  test('is dropped by name', () => {
    saveDraft('roast', { text: '8' }, 'k');
    expect(hasDraft('roast')).toBe(true);
    dropDraft('roast');
    expect(draftOf('roast')).toBeNull();
  });

  test('keys are unlike each other, also where the browser gives none ready', () => {
    const ready = crypto.randomUUID.bind(crypto);
    const bytes = jest.fn((into: Uint8Array) => into.map(() => Math.floor(256 * Math.random())));
    Object.defineProperty(crypto, 'randomUUID', { value: undefined, configurable: true });
    Object.defineProperty(crypto, 'getRandomValues', { value: bytes, configurable: true });
    try {
      const keys = Array.from({ length: 50 }, newKey);
      expect(new Set(keys).size).toBe(50);
      expect(keys.every((key) => /^[0-9a-f]{32}$/.test(key))).toBe(true);
    } finally {
      Object.defineProperty(crypto, 'randomUUID', { value: ready, configurable: true });
    }
  });
});

describe('a save', () => {
  test('is busy while it goes, and says whether it was taken', async () => {
    let taken: () => void = () => undefined;
    const { result } = renderHook(() => useSave());
    let told: Promise<boolean> | null = null;
    act(() => {
      told = result.current.run(() => new Promise<void>((done) => (taken = done)));
    });
    expect(result.current).toMatchObject({ busy: true, error: null });
    await act(async () => {
      taken();
      await told;
    });
    expect(await (told as unknown as Promise<boolean>)).toBe(true);
    expect(result.current).toMatchObject({ busy: false, error: null });
  });

  test('that is refused keeps why, until the next one', async () => {
    const { result } = renderHook(() => useSave());
    const why = new Error('That is more than there is.');
    await act(async () => expect(await result.current.run(() => Promise.reject(why))).toBe(false));
    expect(result.current).toMatchObject({ busy: false, error: why });
    await act(async () => expect(await result.current.run(() => Promise.resolve())).toBe(true));
    expect(result.current.error).toBeNull();
    act(() => result.current.fail('The weight is missing.'));
    expect(result.current.error).toEqual(new Error('The weight is missing.'));
  });

  test('is nobody’s where nobody is chosen', () => {
    expect(somebody('ilse')).toBe('ilse');
    expect(() => somebody(null)).toThrow(NOBODY);
  });
});

describe('what is worked out elsewhere', () => {
  /** Questions that were asked, and how each is answered. */
  function elsewhere() {
    const asked: string[] = [];
    const answers: { tell: (value: string) => void; fail: () => void }[] = [];
    const ask = (question: string | null) => () =>
      new Promise<string>((tell, fail) => {
        asked.push(question ?? '');
        answers.push({ tell, fail: () => fail(new Error('the worker is gone')) });
      });
    const hook = renderHook((question: string | null) => useWorked(question, ask(question)), {
      initialProps: null as string | null,
    });
    return { asked, answers, ...hook };
  }
  const settled = (deed: () => void) =>
    act(async () => {
      deed();
      await new Promise((done) => setTimeout(done, 0));
    });

  test('one question is under way at a time; then the newest is asked, and those between never', async () => {
    const { asked, answers, result, rerender } = elsewhere();
    expect(asked).toEqual([]);
    for (const question of ['a', 'b', 'c', 'd']) rerender(question);
    expect(asked).toEqual(['a']);
    await settled(() => answers[0]?.tell('A'));
    expect(asked).toEqual(['a', 'd']);
    expect(result.current).toBe('A');
    await settled(() => answers[1]?.tell('D'));
    expect(result.current).toBe('D');
  });

  test('what was asked is not asked again', async () => {
    const { asked, answers, rerender } = elsewhere();
    rerender('a');
    await settled(() => answers[0]?.tell('A'));
    rerender('a');
    rerender(null);
    rerender('a');
    expect(asked).toEqual(['a']);
  });

  test('where the work fails the last answer stays, and the next question is asked', async () => {
    const { asked, answers, result, rerender } = elsewhere();
    rerender('a');
    await settled(() => answers[0]?.tell('A'));
    rerender('b');
    rerender('c');
    await settled(() => answers[1]?.fail());
    expect(result.current).toBe('A');
    expect(asked).toEqual(['a', 'b', 'c']);
    await settled(() => answers[2]?.tell('C'));
    expect(result.current).toBe('C');
  });
});

describe('a word on one line', () => {
  const line = () => renderHook(() => useKept('order.o1.cancel', ''));

  test('is there again after a reload, until it is forgotten', () => {
    const first = line();
    act(() => first.result.current[1]('the shop is shut'));
    first.unmount();
    const again = line();
    expect(again.result.current[0]).toBe('the shop is shut');
    act(() => again.result.current[2]());
    expect(again.result.current[0]).toBe('');
    again.unmount();
    expect(line().result.current[0]).toBe('');
  });

  test('changes of one moment all count', () => {
    const { result } = line();
    act(() => {
      result.current[1]((now) => `${now}a`);
      result.current[1]((now) => `${now}b`);
    });
    expect(result.current[0]).toBe('ab');
  });
});
