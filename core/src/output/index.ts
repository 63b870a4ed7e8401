export * from './animated-svg';
export * from './still-svg';
