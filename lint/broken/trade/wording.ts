// Speaks of two trades: the linter must see it.
export const FIRST = 'heated_area';
export const mainCrop = 'tomatoes';
export const WORDS = ['washing lines'];
