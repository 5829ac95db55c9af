/** A value that its holder hands on and nobody changes, all the way down; records of any key hold lists at most. */
export type DeepReadonly<T> = T extends readonly unknown[]
  ? { readonly [K in keyof T]: DeepReadonly<T[K]> }
  : T extends object
    ? string extends keyof T
      ? T[keyof T] extends readonly unknown[]
        ? { readonly [K in keyof T]: DeepReadonly<T[K]> }
        : T
      : { readonly [K in keyof T]: DeepReadonly<T[K]> }
    : T;
