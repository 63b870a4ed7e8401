declare module 'jsts/dist/jsts.min.js';
