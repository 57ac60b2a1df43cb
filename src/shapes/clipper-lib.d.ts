/** As much as a test's second polygon package needs: it ships no types of its own. */
declare module 'clipper-lib' {
  interface IntPoint {
    readonly X: number;
    readonly Y: number;
  }
  const ClipperLib: {
    readonly ClipperOffset: new (
      miterLimit: number,
      arcTolerance: number,
    ) => {
      AddPath(path: readonly IntPoint[], join: number, end: number): void;
      Execute(solution: IntPoint[][], delta: number): void;
    };
    readonly Paths: new () => IntPoint[][];
    readonly JoinType: { readonly jtRound: number };
    readonly EndType: { readonly etClosedPolygon: number };
    readonly Clipper: { Area(path: readonly IntPoint[]): number };
  };
  export = ClipperLib;
}
