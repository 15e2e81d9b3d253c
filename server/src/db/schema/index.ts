export * from './people';
export * from './yard';
export * from './lots';
export * from './records';
export * from './site';
export * from './seed';
