import highs from 'highs';

export type Highs = Awaited<ReturnType<typeof highs>>;

let loading: Promise<Highs> | null = null;
let wasmUrl: string | undefined;

/** Where the solver's WebAssembly is served from, when it is not beside its script. Said once, before it loads. */
export function solverAt(url: string): void {
  wasmUrl = url;
}

/** The mixed-integer solver (HiGHS in WebAssembly), loaded once. */
export function loadSolver(): Promise<Highs> {
  loading ??= highs(wasmUrl ? { locateFile: () => wasmUrl! } : {});
  return loading;
}
