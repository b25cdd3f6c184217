declare module 'jstat' {
  interface Distributions {
    studentt: { inv(p: number, dof: number): number; cdf(x: number, dof: number): number };
    normal: { inv(p: number, mean: number, sd: number): number; cdf(x: number, mean: number, sd: number): number };
    betaln(a: number, b: number): number;
  }
  const jstat: Distributions;
  export default jstat;
}
