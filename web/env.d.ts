/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    bench?: Bench;
  }
}

type Bench = import('#web/endpoints/readBench.ts').Bench;
