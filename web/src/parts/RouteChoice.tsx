import { useHere } from './workshop';

export function RouteChoice({
  routeId,
  choose,
  none,
}: {
  routeId: string;
  choose: (id: string) => void;
  /** What no route is called, where there may be none. */
  none?: string;
}) {
  const { view } = useHere();
  const route = view.routes.find(({ id }) => id === routeId);
  return (
    <label className="label mt-4 block max-w-xl">
      Route
      <select className="entry" value={routeId} onChange={(event) => choose(event.target.value)}>
        {none !== undefined && <option value="">{none}</option>}
        {view.routes.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      {route && <span className="mt-1 block">{route.note}</span>}
    </label>
  );
}
