/** The few distributions that are used; the package ships no types. */
declare module "jstat" {
  const jstat: {
    studentt: { inv(p: number, freedom: number): number; cdf(x: number, freedom: number): number };
    normal: {
      inv(p: number, mean: number, sd: number): number;
      cdf(x: number, mean: number, sd: number): number;
    };
    gamma: { inv(p: number, shape: number, scale: number): number };
    beta: { inv(p: number, a: number, b: number): number };
    centralF: { cdf(x: number, d1: number, d2: number): number };
  };
  export default jstat;
}
