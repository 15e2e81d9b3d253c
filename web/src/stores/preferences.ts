import { formatQuantity, fromShown, toShown, unitOf, type Quantity, type UnitSystem } from '@kauri/core';
import { useLocalStorage, usePreferredDark } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, watchEffect } from 'vue';

/** How this person wants to see things. Kept in the browser. */
export const usePreferences = defineStore('preferences', () => {
  const chosenUnits = useLocalStorage<UnitSystem | 'nursery'>('kauri.units', 'nursery');
  /** What the nursery was set up with; holds until this person chooses. */
  const nurseryUnits = ref<UnitSystem>('metric');
  const units = computed(() => (chosenUnits.value === 'nursery' ? nurseryUnits.value : chosenUnits.value));
  const chosenTheme = useLocalStorage<'light' | 'dark' | 'system'>('kauri.theme', 'system');
  const prefersDark = usePreferredDark();
  const theme = computed(() =>
    chosenTheme.value === 'system' ? (prefersDark.value ? 'dark' : 'light') : chosenTheme.value,
  );
  watchEffect(() => (document.documentElement.dataset.theme = theme.value));

  const show = (value: number, quantity: Quantity, digits?: number) =>
    formatQuantity(value, quantity, units.value, digits);
  const unit = (quantity: Quantity) => unitOf(quantity, units.value);
  const shown = (value: number, quantity: Quantity) => toShown(value, quantity, units.value);
  const typed = (value: number, quantity: Quantity) => fromShown(value, quantity, units.value);
  const switchUnits = () => (chosenUnits.value = units.value === 'metric' ? 'us' : 'metric');
  const switchTheme = () => (chosenTheme.value = theme.value === 'light' ? 'dark' : 'light');
  return { units, nurseryUnits, theme, show, unit, shown, typed, switchUnits, switchTheme };
});
