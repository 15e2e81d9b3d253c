export * from './basics';
export * from './yard';
export * from './lots';
export * from './weather';
export * from './people';
export * from './routes';
export * from './openapi';
