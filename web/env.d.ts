/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    bench?: import('#web/endpoints/readBench.ts').Bench;
  }
}
