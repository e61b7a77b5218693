/// <reference types="@angular/localize" />
declare module 'verovio/wasm' {
  const createVerovioModule: () => Promise<unknown>;
  export default createVerovioModule;
}
declare module 'verovio/esm' {
  export class VerovioToolkit {
    constructor(module: unknown);
    setOptions(options: Record<string, unknown>): void;
    loadData(data: string): boolean;
    getPageCount(): number;
    renderToSVG(page: number): string;
  }
}
/** False in the built application: what stands behind it stays out of its scripts. */
declare const ngDevMode: boolean;

/** The same storage library, built for browsers of today: an eighth smaller. */
declare module 'dexie/dist/modern/dexie.mjs' {
  export * from 'dexie';
}
