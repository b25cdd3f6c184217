import type { Margin } from '../products/margin';
import type { PieceParts } from '../products/product';
import type { ProductFacts } from '../products/records';

/** A product as it is now. */
export interface ProductView {
  id: string;
  version: number;
  at: number;
  person: string;
  why: string;
  facts: ProductFacts;
  piece: PieceParts;
  /** Names of what it is made and packed with, by material and recipe and mould. */
  names: Readonly<Record<string, string>>;
  /** Packed and free, and bars of it that wait to be packed. */
  packed: number;
  unpacked: number;
  /** What a packed piece cost, of what is here or was packed last, milli; null: none was yet. */
  costMilli: number | null;
}

export interface ProductsView {
  products: ProductView[];
  retired: ProductView[];
  recipes: { id: string; name: string }[];
  moulds: { id: string; name: string; cavityG: number }[];
  channels: string[];
}

export interface ProductPageView {
  product: ProductView;
  versions: Omit<ProductView, 'packed' | 'unpacked' | 'costMilli'>[];
  margins: Margin[];
}
