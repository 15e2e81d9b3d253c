import {
  buyingList,
  solverAt,
  stockOf,
  type BuildSheet,
  type PriceList,
  type StockLength,
  type TimberClass,
} from '@kauri/core';
import { exposeSpeaking } from './speaking';
import solverWasm from 'highs/runtime?url';

solverAt(solverWasm);

const api = {
  /** The cheapest boards for a build sheet; own stock of a section goes before the price list's. */
  buy(
    timber: BuildSheet['timber'],
    prices: PriceList,
    timberOf: Record<string, TimberClass>,
    own: Record<string, StockLength[]>,
  ) {
    return buyingList(
      { timber },
      prices.kerfMm,
      (board) => own[board] ?? stockOf(board, timberOf[board], prices),
    );
  },
};

export type CutWorker = typeof api;
exposeSpeaking(api);
