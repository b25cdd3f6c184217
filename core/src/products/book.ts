import { DomainError } from '../errors/domain-error';
import type { Command } from '../commands';
import { Products } from './product';
import type { ProductRecordValue } from './records';

/** Where what was said of products is kept, oldest first. */
export interface ProductRecords {
  of(room: 'products'): readonly { value: ProductRecordValue; at: number; personId: string }[];
}

/** By the list of records, which grows: the products when it was so long. */
const known = new WeakMap<readonly unknown[], { of: number; products: Products }>();

/** Products with all their versions. */
export function productsOf(records: ProductRecords): Products {
  const all = records.of('products');
  const before = known.get(all);
  if (before?.of === all.length) return before.products;
  const products = new Products();
  for (const { value, at, personId } of all)
    products.add(value.productId, value.facts, { at, personId, why: value.why });
  known.set(all, { of: all.length, products });
  return products;
}

/** Refuses to pack as a product that is not known. @throws DomainError `products/unknown` */
export function checkPackedAs(records: ProductRecords, command: Command): void {
  if (command.kind !== 'pack' || command.product === undefined) return;
  const { id, version } = command.product;
  if (productsOf(records).version(id, version)) return;
  throw new DomainError('products/unknown', 'There is no such product in that version.', [
    { path: 'product', message: 'is not known here' },
  ]);
}
