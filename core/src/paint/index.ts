export * from './blend';
export * from './colour';
export * from './common-paint';
export * from './draw-target';
export * from './gradient';
export * from './stroke-style';
