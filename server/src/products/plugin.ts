import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import type { ProductPageView, ProductsView, ProductView } from '@wunsch/core/api/products';
import { id } from '@wunsch/core/fields/fields';
import { text } from '@wunsch/core/fields/fields';
import { margins } from '@wunsch/core/products/margin';
import { fillFrom, type ProductVersion } from '@wunsch/core/products/product';
import { productFacts } from '@wunsch/core/products/records';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { mouldsView } from '../mould/plugin';
import { soldLines } from './sales';
import { productsOf } from '@wunsch/core/products/book';
import { checkProduct, productAt, stockByProduct, versionView } from './products';

const save = z.object({ personId: id, facts: productFacts, why: text(300) });

/** What is sold: products in versions, with what is in them and around them. */
export function productRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const view = (row: ProductVersion, stock = stockByProduct(views)): ProductView => {
    const there = stock.get(row.id);
    return {
      ...versionView(views, row),
      packed: there?.packed ?? 0,
      unpacked: there?.unpacked ?? 0,
      costMilli: there && there.costMilli > 0 ? there.costMilli : null,
    };
  };
  router.read('/api/products', 'What is sold, each in its newest version', (): ProductsView => {
    const products = productsOf(workshop.records);
    const stock = stockByProduct(views);
    const all = products.all();
    const channels = new Set(all.flatMap(({ facts }) => facts.prices.map(({ channel }) => channel)));
    for (const { value } of workshop.records.of('orders'))
      if (value.kind === 'customer') channels.add(value.facts.channel);
    return {
      products: all.filter(({ facts }) => !facts.retired).map((row) => view(row, stock)),
      retired: all.filter(({ facts }) => facts.retired).map((row) => view(row, stock)),
      recipes: workshop.recipes
        .all()
        .filter(({ shelved }) => !shelved)
        .map(({ id: recipeId, versions }) => ({ id: recipeId, name: versions.at(-1)?.recipe.name ?? '' })),
      moulds: mouldsView(views).moulds.map(({ id: mouldId, name, cavityG }) => ({ id: mouldId, name, cavityG })),
      channels: [...channels].sort(),
    };
  });
  router.read('/api/products/:id', 'A product with all its versions and what it earned', (request): ProductPageView => {
    const row = productAt(views, param(request.params, 'id'));
    return {
      product: view(row),
      versions: productsOf(workshop.records)
        .versions(row.id)
        .map((version) => versionView(views, version))
        .reverse(),
      margins: margins(soldLines(views, 0).filter(({ productId }) => productId === row.id)),
    };
  });
  router.write('POST', '/api/products', 'Add a product', save, ({ personId, facts, why }) => {
    checkProduct(views, facts, null);
    const productId = nanoid(10);
    workshop.addRecord('products', { kind: 'product', productId, facts, why }, { personId });
    return view(productAt(views, productId));
  });
  router.write(
    'PUT',
    '/api/products/:id',
    'Change a product: its next version; earlier packings keep theirs',
    save,
    ({ personId, facts, why }, request) => {
      const { id: productId } = productAt(views, param(request.params, 'id'));
      checkProduct(views, facts, productId);
      workshop.addRecord('products', { kind: 'product', productId, facts, why }, { personId });
      return view(productAt(views, productId));
    },
  );
  router.calc(
    '/api/calc/products/fill',
    'Pieces that a bowl gives, with what each takes beside chocolate',
    z.object({
      chocolateG: z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(2_000_000, 'is too much')),
      holdUpG: z._default(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100_000, 'is too much')), 0),
      product: productFacts,
    }),
    ({ chocolateG, holdUpG, product }) => fillFrom(chocolateG, holdUpG, product),
  );
}
