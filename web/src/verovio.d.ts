// The engraver has no types of its own; these are the calls the tests make.
declare module 'verovio/wasm' {
  const createModule: () => Promise<unknown>
  export default createModule
}
declare module 'verovio/esm' {
  export class VerovioToolkit {
    constructor(module: unknown)
    loadData(data: string): boolean
    getMEI(options: object): string
    renderToMIDI(): string
  }
}
