import { tryOnScopeDispose } from '@vueuse/core';
import { addressOf } from '../api/client';
import { useDevice } from '../stores/device';
import { useNursery } from '../stores/nursery';

/** Where photos are shown from: the server or, while they are not sent yet, this device. */
export function usePhotos() {
  const device = useDevice();
  const nursery = useNursery();
  const made = new Map<string, string>();
  tryOnScopeDispose(() => made.forEach((address) => URL.revokeObjectURL(address)));
  return {
    photoAt(photo: string): string {
      const blob = device.acts.find(({ id }) => id === photo)?.photo;
      if (!blob) return made.get(photo) ?? addressOf('photo', { params: { ...nursery.params, photo } });
      if (!made.has(photo)) made.set(photo, URL.createObjectURL(blob));
      return made.get(photo)!;
    },
  };
}
