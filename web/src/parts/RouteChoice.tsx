import { useHere } from './workshop';
import { SelectBox } from './choice';

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
    <SelectBox
      className="mt-4 max-w-xl"
      label="Route"
      value={routeId}
      options={[
        ...(none === undefined ? [] : [['', none] as const]),
        ...view.routes.map(({ id, name }) => [id, name] as const),
      ]}
      onChange={choose}
      hint={route?.note}
    />
  );
}
