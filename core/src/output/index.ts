export * from './animated-svg';
