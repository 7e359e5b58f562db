/**
 * How types of the API are read, in place of the library's own of the same name (tsconfig: paths).
 * That one would turn pairs of numbers into lists; here nothing is written that can't be read.
 */
export * from "../../node_modules/openapi-typescript-helpers/dist/index.mjs";

export type Readable<T> = T;
export type Writable<T> = T;
