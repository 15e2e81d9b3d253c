import { dayOf, say } from '@kauri/core';
import { computed, type Ref } from 'vue';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { shortDate, yearOf } from '../../words/dates';
import { count } from '../../words/numbers';
import { buyerOf, isOpen, sizeWords } from './orderWords';
import type { useWhen } from './useWhen';

/** Lines still open that may be asked about, and the one that is, where all that was typed is still its own. */
export function useLineAsked(asked: Ref<ReturnType<typeof useWhen>['asked']['value']>) {
  const nursery = useNursery();
  const orders = useOrders();
  const season = useSeason();
  const { shown, unit } = usePreferences();
  const inUnits = (cm: number) => shown(cm, 'height');
  const lines = computed(() =>
    orders.all
      .flatMap((order) => order.lines.map((line) => ({ order, line })))
      .filter(({ line }) => isOpen(line) && dayOf(line.until) > season.today && line.count > line.sent)
      .sort((a, b) => a.line.on.localeCompare(b.line.on)),
  );
  const lineOptions = computed(() => [
    { value: '', words: say`Trees of my own asking` },
    ...lines.value.map(({ order, line }) => ({
      value: line.id,
      words: `${shortDate(dayOf(line.on), yearOf(season.today))}: ${count(line.count - line.sent)} ${nursery.lookup.species.get(line.speciesId)?.common ?? '?'}, ${sizeWords(line, inUnits, unit('height'))}, ${order.buyer || say`a hope`}`,
    })),
  ]);
  const heightText = (cm: number | null) => (cm === null ? '' : String(Number(inUnits(cm).toFixed(1))));
  const found = computed(
    () =>
      lines.value.find(
        ({ line }) =>
          line.speciesId === asked.value.speciesId &&
          line.form === asked.value.form &&
          heightText(line.fromCm) === asked.value.from &&
          heightText(line.toCm) === asked.value.to &&
          line.on === asked.value.on &&
          line.until === (asked.value.until || asked.value.on) &&
          String(line.count - line.sent) === asked.value.count,
      ) ?? null,
  );
  const line = computed({
    get: () => found.value?.line.id ?? '',
    set: (id) => {
      const of = lines.value.find(({ line }) => line.id === id)?.line;
      if (!of) return;
      Object.assign(asked.value, {
        speciesId: of.speciesId,
        form: of.form,
        from: heightText(of.fromCm),
        to: heightText(of.toCm),
        on: of.on,
        until: of.until,
        count: String(of.count - of.sent),
        routeId: '',
      });
    },
  });
  const forWhom = computed(() => (found.value ? buyerOf(found.value.order) : null));
  return { lineOptions, line, found, forWhom };
}
