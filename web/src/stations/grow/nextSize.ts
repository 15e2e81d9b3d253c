import { containerVolume, type Home } from '@kauri/core';
import type { ContainerType } from '@kauri/core/contract';

/** The next larger container than a lot stands in, a third larger at least; the first there is where none is. */
export function nextSize(home: Home, containers: readonly ContainerType[]): ContainerType | undefined {
  const now = home.kind === 'container' ? home.cellMl : 0;
  const volume = (c: ContainerType) => containerVolume(c.values).value;
  const larger = containers.filter((c) => c.values.cellsPerTray > 1 && volume(c) > now * 1.3);
  return larger.sort((a, b) => volume(a) - volume(b))[0] ?? containers[0];
}
