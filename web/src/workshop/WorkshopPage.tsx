import { useHere } from '../parts/workshop';
import { BackupSection } from './BackupSection';
import { Data } from './DataSection';
import { Machines } from './MachineSection';
import { Materials } from './Materials';
import { Team } from './Team';
import { Routes } from './RoutesSection';
import { Units } from './UnitsSection';

/** Team, machines, ingredients, routes, units and prices, and the way out for the data. */
export function WorkshopPage() {
  const { view } = useHere();
  return (
    <>
      <h1 className="mb-6 text-4xl">{view.settings.name}</h1>
      <div className="grid gap-x-14 gap-y-10 lg:grid-cols-2">
        <div>
          <Team />
          <Machines />
          <Materials />
        </div>
        <div>
          <Units />
          <Data />
          <BackupSection />
        </div>
      </div>
      <Routes />
    </>
  );
}
