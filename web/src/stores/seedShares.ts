import {
  lotShares,
  ownShare,
  pooledShare,
  type CuttingKind,
  type Outcome,
  type PooledShare,
  type School,
  type SowingChain,
  type ViabilityOutlook,
} from '@kauri/core';
import type { Evidence, LotRow, SeedLot, Species } from '@kauri/core/contract';

/** What the shares between a seed and a tree are learnt from. */
export interface SharesBasis {
  lots: () => ReadonlyMap<string, LotRow>;
  evidence: () => ReadonlyMap<string, Evidence>;
  /** By which school a batch was treated, where it is known. */
  schoolOf: (treatmentId: string) => School | undefined;
  speciesOf: (id: string) => Species;
  outlookOf: (seedLotId: string) => ViabilityOutlook | undefined;
  /** Germination tests of a bag. */
  testsOf: (seedLotId: string) => number;
}

/** The shares between a seed, or a cutting, and a tree, as the nursery's own lots teach them. */
export function seedShares({ lots, evidence, schoolOf, speciesOf, outlookOf, testsOf }: SharesBasis) {
  /** What the nursery's lots of a species say of each share, by their ledgers; of those treated alike, or cut alike, if asked. */
  function outcomesOf(
    speciesId: string,
    school: School | null = null,
    cutting: CuttingKind | null = null,
  ): Record<'emergence' | 'establishment' | 'grade' | 'strike', Outcome[]> {
    const outcomes = { emergence: [], establishment: [], grade: [], strike: [] } as Record<
      'emergence' | 'establishment' | 'grade' | 'strike',
      Outcome[]
    >;
    const { viability } = speciesOf(speciesId).values;
    const alive = viability.alpha / (viability.alpha + viability.beta);
    for (const lot of lots().values()) {
      if (lot.speciesId !== speciesId || !['seed', 'cuttings'].includes(lot.origin)) continue;
      const treated = lot.treatmentId === null ? undefined : schoolOf(lot.treatmentId);
      const alike = school === null || treated === undefined || treated === school;
      const shares = lotShares(evidence().get(lot.id)?.movements ?? []);
      if (shares.emergenceOver) {
        if (lot.origin === 'cuttings' && (cutting === null || lot.cutting === cutting))
          outcomes.strike.push({ k: shares.up, n: shares.sown });
        if (lot.origin === 'seed' && alike) {
          const live = Math.max(shares.up, Math.round(shares.sown * alive));
          outcomes.emergence.push({ k: shares.up, n: live });
        }
        if (shares.up > 0) outcomes.establishment.push(shares.established);
      }
      if (shares.grade.n > 0) outcomes.grade.push(shares.grade);
    }
    return outcomes;
  }

  /** The shares between a seed and a tree for a species. */
  function sharesOf(
    speciesId: string,
    school: School | null = null,
  ): Record<'emergence' | 'establishment' | 'grade', PooledShare> {
    const { values } = speciesOf(speciesId);
    const outcomes = outcomesOf(speciesId, school);
    return {
      emergence: pooledShare(values.emergence, outcomes.emergence),
      establishment: pooledShare(values.establishment, outcomes.establishment),
      grade: pooledShare(values.grade, outcomes.grade),
    };
  }

  /** The shares between a seed and a tree, of a bag and a batch of it where they are chosen. */
  function chainOf(speciesId: string, lot: SeedLot | null, school: School | null): SowingChain {
    const own = lot ? outlookOf(lot.id)?.now : undefined;
    const tests = own ? testsOf(lot!.id) : 0;
    return {
      viability: own
        ? ownShare(own.beta, tests, Math.min(1, 10 / (own.beta.alpha + own.beta.beta)))
        : pooledShare(speciesOf(speciesId).values.viability, []),
      ...sharesOf(speciesId, school),
    };
  }

  return { outcomesOf, sharesOf, chainOf };
}
