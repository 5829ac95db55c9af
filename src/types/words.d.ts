declare module 'snowball-stemmers' {
  export interface Stemmer {
    stem(word: string): string;
  }
  export function newStemmer(algorithm: string): Stemmer;
}
declare module 'stopword' {
  export const deu: readonly string[];
  export const eng: readonly string[];
  export const fra: readonly string[];
  export const ita: readonly string[];
  export const nld: readonly string[];
  export const pol: readonly string[];
  export const spa: readonly string[];
}
