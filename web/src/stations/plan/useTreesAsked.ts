import { treeForms, type TreeForm, say } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { typedNumber } from '../../parts/typed';
import { keptKey } from '../../stores/kept';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';

/** Trees as they are asked for at the plan, in the words that were typed. */
export interface TreesAsked {
  speciesId: string;
  form: TreeForm;
  from: string;
  to: string;
  on: string;
}

/**
 * What is asked for, kept while the tab is open; an address with a species in it asks anew.
 * @param key names what it is kept under
 * @param start besides the species, which is one that stands
 */
export function useTreesAsked<T extends object>(key: string, start: Pick<TreesAsked, 'form' | 'on'> & T) {
  const nursery = useNursery();
  const route = useRoute();
  const { shown, typed } = usePreferences();
  const asked = useSessionStorage<TreesAsked & T>(keptKey(key), {
    speciesId: '',
    from: '',
    to: '',
    ...start,
  });
  const query = (name: string) => (typeof route.query[name] === 'string' ? String(route.query[name]) : '');
  const heightShown = (cm: string) => (cm ? String(Number(shown(Number(cm), 'height').toFixed(1))) : '');
  if (nursery.lookup.species.has(query('species')))
    Object.assign(asked.value, {
      speciesId: query('species'),
      form: treeForms.find((form) => form === query('form')) ?? 'bare-root',
      from: heightShown(query('from')),
      to: heightShown(query('to')),
      on: query('on'),
    });
  if (!nursery.lookup.species.has(asked.value.speciesId)) {
    const standing = [...nursery.lots.values()].find((lot) => lot.held.standing > 0);
    asked.value.speciesId = standing?.speciesId ?? nursery.catalogue!.species[0].id;
  }
  const height = (text: string) => (text.trim() === '' ? null : typed(typedNumber(text), 'height'));
  /** The size in cm, or what is wrong with it. */
  const sizes = computed(() => {
    const [fromCm, toCm] = [height(asked.value.from), height(asked.value.to)];
    const isSize = [fromCm, toCm].every((cm) => cm === null || cm > 0);
    const fault = !isSize
      ? say`A size is a number above 0.`
      : fromCm !== null && toCm !== null && fromCm >= toCm
        ? say`The size ends before it begins.`
        : null;
    return { fault, fromCm, toCm };
  });
  return { asked, query, sizes };
}
