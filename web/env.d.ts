/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    bench?: Bench;
    /** Who asks, read before anything is answered. */
    who?: import('#server/people/whoAsks.ts').Who;
    /** Of the workshop, read before anything of a page is written. */
    timeZone: string;
  }
}

type Bench = import('#web/pageData/readBench.ts').Bench;
