import { css, type SerializedStyles } from '@emotion/react';
import unitless from '@emotion/unitless';
import type { CSSProperties } from 'react';

/**
 * Size and place of one element, above every sheet, as an attribute of style would be: the policy of a page
 * (`src/server/http/entry.ts`) allows no such attribute, so they become rules of a sheet that carries the page's nonce.
 * Numbers are pixels where CSS asks for a length.
 */
export function placed(style: CSSProperties): SerializedStyles {
  const rules: Record<string, string> = {};
  for (const [name, value] of Object.entries(style) as [string, string | number | undefined][]) {
    if (value === undefined || value === '') continue;
    const length = typeof value === 'number' && value !== 0 && !name.startsWith('--') && unitless[name] !== 1;
    rules[name] = `${value}${length ? 'px' : ''} !important`;
  }
  return css(rules);
}
