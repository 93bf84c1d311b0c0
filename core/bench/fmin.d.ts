declare module 'fmin' {
  const fmin: {
    nelderMead: (
      f: (x: number[]) => number,
      start: number[],
      options?: { maxIterations?: number; minErrorDelta?: number; minTolerance?: number },
    ) => { x: number[]; fx: number };
  };
  export default fmin;
}
