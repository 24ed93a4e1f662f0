export * from './errors';
export * from './frames';
export * from './link';
export * from './workings';
export * from './http';
export * from './live';
