import { useState } from 'react';

export type Theme = 'day' | 'night';

export function useTheme(): { theme: Theme; turn: () => void } {
  const [theme, setTheme] = useState<Theme>(() =>
    document.documentElement.dataset['theme'] === 'night' ? 'night' : 'day',
  );
  const turn = (): void => {
    const next = theme === 'day' ? 'night' : 'day';
    document.documentElement.dataset['theme'] = next;
    localStorage.setItem('wunsch.theme', next);
    setTheme(next);
  };
  return { theme, turn };
}
