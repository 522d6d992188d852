/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    asked: import('./server/http/asked').Asked
    person: import('./server/people/person').Person | null
    /** What an endpoint answers, in a form that is sent as it is. */
    reply: import('./server/http/reply').Reply | null
  }
}
