declare module 'quadprog' {
  const quadprog: {
    solveQP: (
      D: number[][],
      d: number[],
      A: number[][],
      b: number[],
      equalities: number,
    ) => { solution: number[]; value: number[]; message: string };
  };
  export = quadprog;
}
