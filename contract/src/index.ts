export * from './approach';
export * from './athlete';
export * from './club';
export * from './clubFile';
export * from './problem';
export * from './session';
