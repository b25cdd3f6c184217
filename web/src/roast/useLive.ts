import { useEffect, useState } from 'react';
import type { CurveData, LiveTick, LiveView } from '@wunsch/core/api/roast';
import { roastClock } from '@wunsch/core/roast/live';
import { elapsedS } from '@wunsch/core/run/clock';
import { useApi } from '../parts/api';
import { joined } from './data';

export interface Live {
  view: LiveView;
  curve: CurveData;
  /** Roast seconds now, by the server's clock. */
  second: number;
  silent: boolean;
  /** What fails behind the scenes, in words. */
  trouble: string | null;
}

/** A live roast as it goes: its facts by fetching, its readings by the stream. A lost line is taken up where it broke. */
export function useLive(workId: string): { live: Live | null; error: unknown } {
  const answer = useApi(`/api/roast/live/${workId}`);
  const view = answer.data;
  const [curve, setCurve] = useState<CurveData | null>(null);
  const [silent, setSilent] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [drift, setDrift] = useState(0);
  const [clock, setClock] = useState(() => Date.now());
  const known = view !== undefined;

  useEffect(() => {
    if (!known) return;
    const source = new EventSource(`/api/roast/live/${workId}/stream`);
    source.onmessage = (event: MessageEvent<string>) => {
      const tick = JSON.parse(event.data) as LiveTick;
      setDrift(tick.now - Date.now());
      setSilent(tick.silent);
      setTrouble(tick.trouble);
      if (tick.curve.seconds.length === 0) return;
      // A line that was taken up again begins with everything.
      setCurve((now) => joined(now ?? { seconds: [], beanC: [], airC: [] }, tick.from, tick.curve));
    };
    return () => source.close();
  }, [known, workId]);

  useEffect(() => {
    const timer = setInterval(() => setClock(Date.now()), 500);
    return () => clearInterval(timer);
  }, []);

  if (!view) return { live: null, error: answer.error };
  const second = elapsedS(roastClock(view.roast, view.work.startedAt), clock + drift);
  return { live: { view, curve: curve ?? view.curve, second, silent, trouble }, error: answer.error };
}
