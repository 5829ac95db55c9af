/** What an expression can be worth. Null stands for what is not known. */
export type FeelValue = string | number | boolean | null | readonly FeelValue[] | { readonly [name: string]: FeelValue | undefined };
export type FeelScope = { readonly [name: string]: FeelValue | undefined };
