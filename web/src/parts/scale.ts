import { useEffect, useState } from 'react';
import type { ScaleReading } from '@wunsch/core/api/devices';

/** Live readings while `on`; null until the first arrives or when the stream is lost. */
export function useScale(on: boolean): ScaleReading | null {
  const [reading, setReading] = useState<ScaleReading | null>(null);
  useEffect(() => {
    if (!on) return;
    const source = new EventSource('/api/devices/scale/stream');
    source.onmessage = (event: MessageEvent<string>) => setReading(JSON.parse(event.data) as ScaleReading);
    source.onerror = () => setReading(null);
    return () => {
      source.close();
      setReading(null);
    };
  }, [on]);
  return reading;
}
