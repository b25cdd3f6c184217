import { logBeta } from '../stats/distributions';

/* Own words: a list that starts small and plain and grows. Near words are joined later; what was said stays as said. */

/** Plain words to begin with. */
export const FIRST_WORDS: readonly string[] = [
  'cocoa',
  'nutty',
  'bread',
  'malt',
  'caramel',
  'honey',
  'raisin',
  'plum',
  'cherry',
  'berries',
  'lemon',
  'orange',
  'apple',
  'banana',
  'flowers',
  'spice',
  'milk',
  'butter',
  'yoghurt',
  'coffee',
  'tea',
  'wine',
  'wood',
  'earth',
  'grass',
  'smoke',
  'roast',
  'burnt',
  'vinegar',
  'cardboard',
];

export type WordAct =
  { kind: 'word'; word: string } | { kind: 'join'; word: string; into: string } | { kind: 'part'; word: string };

export interface VocabularyWord {
  word: string;
  /** Words that mean it as well. */
  near: string[];
  uses: number;
}

/** Words and which of them mean one thing, from what was done with them, oldest first. */
export class Vocabulary {
  private readonly into = new Map<string, string>();
  private readonly known = new Set<string>(FIRST_WORDS);

  constructor(acts: Iterable<WordAct>) {
    for (const act of acts) {
      this.known.add(act.word);
      if (act.kind === 'part') this.into.delete(act.word);
      if (act.kind !== 'join') continue;
      this.known.add(act.into);
      // What the other one meant until now gives way, so that no ring forms.
      const target = this.meaning(act.into);
      if (target === act.word) this.into.delete(act.into);
      this.into.set(act.word, target === act.word ? act.into : target);
    }
  }

  /** The word that stands for it. */
  meaning(word: string): string {
    let at = word;
    for (let next = this.into.get(at); next !== undefined; next = this.into.get(at)) at = next;
    return at;
  }

  /** All words, the most used first. @param said each time a word was said */
  words(said: Iterable<string>): VocabularyWord[] {
    const uses = new Map<string, number>();
    const all = new Set(this.known);
    for (const word of said) {
      all.add(word);
      const meant = this.meaning(word);
      uses.set(meant, (uses.get(meant) ?? 0) + 1);
    }
    const near = new Map<string, string[]>();
    for (const word of all) {
      const meant = this.meaning(word);
      near.set(meant, [...(near.get(meant) ?? []), ...(word === meant ? [] : [word])]);
    }
    return [...near]
      .map(([word, others]) => ({ word, near: others.sort(), uses: uses.get(word) ?? 0 }))
      .sort((a, b) => b.uses - a.uses || a.word.localeCompare(b.word));
  }
}

/** Words said of one impression, and what it was of: a bean, a roast, an age. */
export interface Impression {
  words: readonly string[];
  groups: readonly string[];
}

export interface ComesUp {
  word: string;
  /** Impressions of the group with it, and of how many. */
  here: number;
  of: number;
  /** Share of all others that have it; null: there are no others. */
  elsewhere: number | null;
  /** Whether it comes up more here than elsewhere, beyond chance. */
  own: boolean;
}

/** A word is a group’s own where chance alone brings as much so seldom. */
const BY_CHANCE = 0.05;

const logChoose = (n: number, k: number): number => -Math.log(n + 1) - logBeta(n - k + 1, k + 1);

/** Chance of so many of all its sayings falling here, or more, if here is like elsewhere: Fisher’s exact test. */
function moreOften(hits: number, of: number, others: number, ofOthers: number): number {
  const all = hits + others;
  let sum = 0;
  for (let k = hits; k <= Math.min(of, all); k += 1)
    if (all - k <= ofOthers)
      sum += Math.exp(logChoose(of, k) + logChoose(ofOthers, all - k) - logChoose(of + ofOthers, all));
  return Math.min(1, sum);
}

/** Which words come up for a group, the commonest first; those that are its own are told apart from those of all. */
export function comesUp(impressions: readonly Impression[], group: string, vocabulary: Vocabulary): ComesUp[] {
  const said = impressions.map(({ words, groups }) => ({
    words: new Set(words.map((word) => vocabulary.meaning(word))),
    here: groups.includes(group),
  }));
  const here = said.filter((row) => row.here);
  const others = said.filter((row) => !row.here);
  const words = new Set(here.flatMap((row) => [...row.words]));
  return [...words]
    .map((word) => {
      const hits = here.filter((row) => row.words.has(word)).length;
      const elsewhere = others.length === 0 ? null : others.filter((row) => row.words.has(word)).length / others.length;
      return {
        word,
        here: hits,
        of: here.length,
        elsewhere,
        own:
          elsewhere !== null &&
          moreOften(hits, here.length, Math.round(elsewhere * others.length), others.length) <= BY_CHANCE,
      };
    })
    .sort((a, b) => b.here - a.here || a.word.localeCompare(b.word));
}
