/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    person: import('./server/people/people').Person | null
  }
}
