import { isoOf, type EpochDay } from '@kauri/core';
import type { Parcel, Sending } from '@kauri/core/contract';
import { csvOf } from '../../tables/csv';

/** What lies in the nursery as a table: a line a parcel. Heights in cm. */
export const parcelTable = (
  parcels: readonly Parcel[],
  {
    speciesName,
    asideOf,
    keepsOf,
  }: {
    speciesName: (id: string) => string;
    asideOf: (parcelId: string) => number;
    keepsOf: (parcel: Parcel) => EpochDay | null;
  },
): string =>
  csvOf(
    parcels.map((parcel) => {
      const until = keepsOf(parcel);
      return {
        place: parcel.place,
        lot: parcel.code,
        species: speciesName(parcel.speciesId),
        form: parcel.form,
        grade: parcel.grade,
        from_cm: parcel.fromCm ?? '',
        to_cm: parcel.toCm ?? '',
        trees: parcel.held,
        set_aside: asideOf(parcel.id),
        bundle_of: parcel.bundleOf ?? '',
        lifted: parcel.since,
        came_back: parcel.cameBack ? 'yes' : '',
        keeps_until: until === null ? '' : isoOf(until),
      };
    }),
  );

/** What was sent as a table: a line for each parcel of each sending. */
export const sentTable = (
  sendings: readonly Sending[],
  {
    receiver,
    parcel,
    speciesName,
    origin,
  }: {
    receiver: (sending: Sending) => string;
    parcel: (id: string) => Parcel | undefined;
    speciesName: (id: string) => string;
    origin: (of: { lotId: string }) => string;
  },
): string =>
  csvOf(
    sendings.flatMap((sending) => {
      const back = (parcelId: string, what: 'count' | 'dead') =>
        sending.returns
          .flatMap((one) => one.parts)
          .reduce((sum, part) => sum + (part.parcelId === parcelId ? part[what] : 0), 0);
      return sending.parts.map(({ parcelId, lotId, count }) => {
        const of = parcel(parcelId);
        return {
          day: sending.on,
          to: receiver(sending),
          lot: of?.code ?? '',
          species: of ? speciesName(of.speciesId) : '',
          form: of?.form ?? '',
          grade: of?.grade ?? '',
          trees: count,
          came_back: back(parcelId, 'count'),
          dead_of_them: back(parcelId, 'dead'),
          lifted: of?.since ?? '',
          origin: origin({ lotId }),
          note: sending.note,
          by: sending.by,
        };
      });
    }),
  );
