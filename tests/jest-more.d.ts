declare namespace jest {
  interface Matchers<R> {
    /** Asks a function again and again until it answers true. */
    toBecomeTrue(): Promise<R>;
  }
}
