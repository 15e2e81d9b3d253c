/* What keeps things on the device, in one piece that is fetched behind the first screen. */
export { liveQuery } from 'dexie';
export { Device } from './device';
export { memoryOf } from './memory';
export { outbox } from './outbox';
