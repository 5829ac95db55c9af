'use client';
import { useState } from 'react';

/** Words and phrases as tags; typed ones join them, commas part them. */
export function Phrases({
  title,
  of,
  add,
  list,
  onChange,
}: {
  /** without one, whoever shows them says what they are */
  readonly title?: string;
  /** whose words they are, for who cannot see where they stand */
  readonly of?: string;
  readonly add: string;
  readonly list: readonly string[];
  readonly onChange?: ((next: string[]) => void) | undefined;
}) {
  const [typed, setTyped] = useState('');
  const put = (): void => {
    const more = typed
      .split(',')
      .map((phrase) => phrase.trim())
      .filter((phrase) => phrase !== '' && !list.includes(phrase));
    setTyped('');
    if (more.length > 0) onChange?.([...list, ...more]);
  };
  return (
    <>
      {title === undefined ? null : (
        <h2>
          {title} <span className="quiet small">{list.length === 0 ? '' : list.length}</span>
        </h2>
      )}
      <div className="phrases">
        {list.map((phrase) => (
          <span key={phrase} className="phrase">
            {phrase}
            {onChange ? (
              <button aria-label={`Take out “${phrase}”`} onClick={() => onChange(list.filter((other) => other !== phrase))}>
                ✕
              </button>
            ) : null}
          </span>
        ))}
        {onChange ? (
          <input
            value={typed}
            placeholder={`+ ${add}`}
            aria-label={`${title ?? of ?? 'Words'}: ${add}`}
            onChange={(event) => setTyped(event.target.value)}
            onBlur={put}
            onKeyDown={(event) => {
              if (event.key === 'Enter') put();
            }}
          />
        ) : null}
      </div>
    </>
  );
}
