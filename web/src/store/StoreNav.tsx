import { SubNav } from '../parts/SubNav';

const PLACES = [
  ['/store', 'Finished goods and pantry'],
  ['/orders', 'Orders'],
  ['/products', 'Products'],
  ['/sales', 'Sales'],
  ['/complaints', 'Complaints'],
  ['/stock-take', 'Stock-take'],
] as const;

/** From any page of the store to its others. */
export const StoreNav = () => <SubNav name="Store" places={PLACES} />;
