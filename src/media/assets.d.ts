/** The worker bundler gives a .wasm file's URL. */
declare module '*.wasm' {
  const url: string;
  // A file has nothing but its address, so the bundler exports it so.
  export default url;
}

/** So it gives the address of the solver's. */
declare module 'highs/runtime' {
  const url: string;
  export default url;
}
