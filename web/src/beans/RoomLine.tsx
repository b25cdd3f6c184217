import { useApi } from '../parts/api';
import { useHere, useShow } from '../parts/workshop';

/** The air of the bean store, now and over the last day. */
export function RoomLine() {
  const show = useShow();
  const { settings } = useHere().view;
  const { data: room } = useApi('/api/devices/room');
  if (!room) return null;
  // A made-up sensor says nothing about a real store.
  if (room.simulated && !settings.demo)
    return (
      <p className="mt-6 text-soft">
        No sensor stands in the bean store yet: readings come in at <code>POST /api/devices/room/readings</code>. Until
        then read the thermometer and the hygrometer on the wall.
      </p>
    );
  if (room.unplugged)
    return (
      <p className="mt-6 text-soft">
        Nothing is heard from the room sensor{room.simulated && ' (simulated)'}: read the thermometer on the wall.
      </p>
    );
  const wet = room.past.map(({ humidityPct }) => humidityPct);
  const [low, high] = [Math.min(...wet), Math.max(...wet)];
  return (
    <section className="mt-6 flex flex-wrap items-center gap-x-5 gap-y-2" aria-label="Air of the bean store">
      <svg
        viewBox="0 0 120 34"
        className="h-9 w-32"
        role="img"
        aria-label={`Humidity over a day, ${low} to ${high}\u00a0%`}
      >
        <line
          x1={0}
          x2={120}
          y1={34 - (34 * (65 - 30)) / 60}
          y2={34 - (34 * (65 - 30)) / 60}
          stroke="var(--crimson)"
          strokeDasharray="2 3"
        />
        <polyline
          points={wet
            .map((value, index) => `${(120 * index) / Math.max(1, wet.length - 1)},${34 - (34 * (value - 30)) / 60}`)
            .join(' ')}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.6}
        />
      </svg>
      <p className="min-w-0 flex-1">
        <strong className={room.verdict.tone === 'watch' ? 'text-crimson' : ''}>{room.verdict.sentence}</strong>{' '}
        {room.verdict.todo}
        <span className="block text-sm text-soft">
          Humidity {low} to {high}&nbsp;% in the last day, dashed line 65 %; dew point{' '}
          {show.temp(room.verdict.dewPointC)}.{room.simulated && ' Simulated sensor.'}
        </span>
      </p>
    </section>
  );
}
