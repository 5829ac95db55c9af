/** What a mark says by its colour, beside its glyph and its word. */
export type Tone = 'plain' | 'brass' | 'brick' | 'moss' | 'river' | 'plum';
