import { lotCommand, madeBy, type TestServer } from './harness';

/** A nib lot that was bought at once. */
export async function nibLot(server: TestServer, name: string, netG = 20_000): Promise<string> {
  return madeBy(
    await server.step({ ...lotCommand(), name, form: 'nibs', roasted: true, routeId: 'from-nibs', netG } as never),
  );
}

/** A purchase for the pantry, by grams or pieces. */
export async function bought(
  server: TestServer,
  materialId: string,
  amount: { massG?: number; pieces?: number },
): Promise<string> {
  return madeBy(
    await server.step({
      kind: 'buy',
      materialId,
      supplier: 'Quay',
      supplierBatch: '',
      price: 20,
      note: '',
      ...amount,
    } as never),
  );
}

/** Chocolate of a lot in temper: three kilograms in, 2,900 g out. */
export async function poured(server: TestServer, lot: string, name: string): Promise<string> {
  const sources = [{ holdingId: lot, massG: 3000 }];
  const batch = { name, routeId: 'from-nibs' };
  const bowl = madeBy(await server.step({ kind: 'charge', batch, sources, note: '' } as never), 'mass');
  const tub = madeBy(
    await server.step({ kind: 'discharge', batchId: bowl, outsG: [2900], holdUpG: 100, note: '' } as never),
  );
  return madeBy(
    await server.step({
      kind: 'temper',
      sources: [{ holdingId: tub, massG: 2900 }],
      method: 'bath',
      meltC: 46,
      coolC: 27.5,
      workC: 31.8,
      test: 'set',
      note: '',
    } as never),
  );
}

/** Bars from a pour; with `more` what joins them in their moulds. */
export async function moulded(
  server: TestServer,
  pour: string,
  {
    barG = 70,
    goodPieces = 40,
    more = [] as { holdingId: string; massG: number }[],
    goodG,
  }: {
    barG?: number;
    goodPieces?: number;
    more?: { holdingId: string; massG: number }[];
    goodG?: number;
  } = {},
): Promise<string> {
  return madeBy(
    await server.step({
      kind: 'mould',
      sources: [{ holdingId: pour, massG: 2900 }, ...more],
      barG,
      cavities: 24,
      goodPieces,
      ...(goodG === undefined ? {} : { goodG }),
      holdUpG: 100,
      note: '',
    } as never),
  );
}
